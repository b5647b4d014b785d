/** What goes to a device: which drives, under which addresses, in which range; and what may come in. */
import * as v from 'valibot'
import { fields, finiteNumber, text } from './values.ts'

/** A drive on its way out: values from `low` to `high`, in the unit it is shown in, become those from `outLow` to `outHigh`. */
export const Channel = fields({
  /** Key of a drive or a signal. */
  drive: text(90),
  /** `#` in it becomes the copy's number, from 1; without it the first copy goes out alone. */
  address: v.pipe(text(200), v.regex(/^(\/[^\s*,/?[\]{}]+)+$/, 'An address is written as /lamp/1 or /lamp/#.')),
  low: finiteNumber,
  high: finiteNumber,
  outLow: finiteNumber,
  outHigh: finiteNumber,
})

const port = v.pipe(
  v.number(),
  v.integer(),
  v.minValue(1, 'A port is a number from 1 to 65535.'),
  v.maxValue(65535, 'A port is a number from 1 to 65535.'),
)

export const DeviceSchema = fields({
  host: v.pipe(text(120), v.minLength(1, 'Enter a host.')),
  port,
  /** Times a second. */
  rate: v.pipe(
    v.number(),
    v.minValue(1, 'Send at least once per second.'),
    v.maxValue(120, 'Send at most 120 times per second.'),
  ),
  channels: v.pipe(v.array(Channel), v.maxLength(200, 'At most 200 drives can be sent.')),
  /** Where messages that set dials and tap cues are listened for; null for nowhere. */
  listen: v.nullable(port),
})

export type Channel = v.InferOutput<typeof Channel>
export type Device = v.InferOutput<typeof DeviceSchema>

/** Where the board that ships listens. */
export const BOARD_PORT = 9401

export const newDevice = (): Device => ({ host: '127.0.0.1', port: BOARD_PORT, rate: 30, channels: [], listen: null })

/** What comes in: a dial that is set, or a cue that is tapped, by its name. */
export type Incoming =
  { readonly is: 'dial'; readonly name: string; readonly value: number } | { readonly is: 'cue'; readonly name: string }

/** What an address asks for: `/dial/NAME` with a number, `/cue/NAME`; null for anything else. */
export function incomingOf(address: string, value: unknown): Incoming | null {
  const [, kind, name] = /^\/(dial|cue)\/([^/]{1,60})$/.exec(address) ?? []
  if (kind === 'cue') return { is: 'cue', name: name! }
  if (kind !== 'dial' || typeof value !== 'number' || !Number.isFinite(value)) return null
  return { is: 'dial', name: name!, value }
}

/** A value on its way out. */
export function outOf({ low, high, outLow, outHigh }: Channel, shown: number): number {
  const share = high === low ? 0 : (shown - low) / (high - low)
  return outLow + Math.min(1, Math.max(0, share)) * (outHigh - outLow)
}
