/** The function table: every function a formula may call. Adding one is an entry here and its test. */
import { canonical } from '../names.ts'
import type { Entry } from './entry.ts'
import * as shapes from './shapes.ts'
import * as sources from './sources.ts'

export const FUNCTIONS: readonly Entry[] = [
  sources.sine,
  sources.noise,
  sources.random,
  sources.ramp,
  shapes.smoothstep,
  shapes.clamp,
  shapes.mix,
  shapes.round,
  shapes.min,
  shapes.max,
  shapes.abs,
]

const BY_NAME = new Map(FUNCTIONS.map(e => [canonical(e.name), e]))
/** A function by its name, whatever its capitals. */
export const functionNamed = (name: string): Entry | undefined => BY_NAME.get(canonical(name))
