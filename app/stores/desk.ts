/** The pages of the desk. */
export const DESK = [
  { is: 'scope', says: 'Scope', title: 'The curve in hand, large' },
  { is: 'part', says: 'Part', title: 'What is set by hand' },
  { is: 'links', says: 'Links', title: 'What drives what, and in which ratio' },
  { is: 'lap', says: 'Lap', title: 'The lap: whether all comes round' },
  { is: 'piece', says: 'Piece', title: 'Stage, frames, kept versions' },
] as const
export type DeskPage = (typeof DESK)[number]['is']
