/** The moment that stands for a piece on its card. */
import { fromNumber, rational, type Rational } from '../time/rational.ts'
import type { Piece } from './schema.ts'

/** Where none is chosen: a little into the first lap, in seconds. */
const USUAL = rational(5, 4)

export const posterOf = ({ stage }: Piece): Rational => (stage.poster === undefined ? USUAL : fromNumber(stage.poster))
