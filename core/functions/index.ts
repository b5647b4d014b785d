/** The function table: every function a formula may call. Adding one is an entry here and its test. */
import { canonical } from '../units/names.ts'
import type { Entry } from './entry.ts'
import * as angles from './angles.ts'
import * as chance from './chance.ts'
import * as cues from './cues.ts'
import * as curves from './curves.ts'
import * as envelopes from './envelope.ts'
import * as surface from './surface.ts'
import * as stage from './stage.ts'
import * as gears from './gears.ts'
import * as oscillators from './oscillators.ts'
import * as ramps from './ramps.ts'
import * as ranges from './ranges.ts'
import * as rounding from './rounding.ts'
import * as gates from './gates.ts'
import * as shapes from './value-shapes.ts'
import * as sums from './sums.ts'
import * as time from './time.ts'

export const FUNCTIONS: readonly Entry[] = [
  oscillators.sine,
  oscillators.triangle,
  oscillators.square,
  oscillators.saw,
  chance.noise,
  chance.random,
  sums.accumulate,
  ramps.ramp,
  envelopes.envelope,
  curves.curve,
  curves.play,
  cues.since,
  cues.fires,
  cues.count,
  cues.until,
  time.delay,
  time.hold,
  time.at,
  time.rateOf,
  sums.average,
  shapes.remap,
  shapes.clamp,
  ranges.wrap,
  ranges.mirror,
  shapes.mix,
  gates.step,
  gates.smoothstep,
  rounding.round,
  rounding.floor,
  rounding.ceil,
  rounding.fract,
  rounding.mod,
  shapes.abs,
  shapes.sign,
  shapes.min,
  shapes.max,
  angles.pow,
  angles.sqrt,
  angles.exp,
  angles.log,
  gates.ease,
  angles.sin,
  angles.cos,
  angles.tan,
  angles.asin,
  angles.acos,
  angles.atan2,
  angles.hypot,
  gears.engage,
  surface.height,
  surface.foam,
  stage.stageX,
  stage.stageY,
]

const BY_NAME = new Map(FUNCTIONS.map(e => [canonical(e.name), e]))
/** A function by its name, whatever its capitals. */
export const functionNamed = (name: string): Entry | undefined => BY_NAME.get(canonical(name))
