/** The pages of the desk. */
export const DESK = [
  { is: 'scope', says: 'Scope', title: 'The selected curve, large' },
  { is: 'part', says: 'Part', title: 'The selected part’s settings' },
  { is: 'links', says: 'Links', title: 'What drives what, and by which ratio' },
  { is: 'lap', says: 'Lap', title: 'The lap: what loops and what doesn’t' },
  { is: 'piece', says: 'Piece', title: 'Stage, frame rate, versions' },
] as const
export type DeskPage = (typeof DESK)[number]['is']
