/**
 * Live values to a device: the piece runs here, by this machine's clock, and what was chosen of it goes out as OSC over UDP.
 * To this machine alone, unless OPEN_TIDE_DEVICES names others.
 */
import { propertyOf } from '../../core/insight/report'
import type { DeviceStatus } from '../../core/piece/api'
import { createSocket, type Socket } from 'node:dgram'
import { Program } from '../../core/engine/program'
import { setDial } from '../../core/engine/retime'
import type { CompiledExpression } from '../../core/form/compiled-expression'
import { isAddress, messagesIn, packets, type Message } from '../../core/formats/osc/osc'
import { apply } from '../../core/piece/operation'
import { incomingOf, outOf, type Channel, type Device, type Incoming } from '../../core/piece/device'
import type { Piece } from '../../core/piece/schema'
import { momentOfSeconds } from '../../core/time/moment'
import { fromNumber } from '../../core/time/rational'
import { inUnit } from '../../core/units/units'

/** Values that go out in a second, and at once, at most: a sending must not hold up the rest of the server. */
const MOST_A_SECOND = 20_000
export const MOST_AT_ONCE = 2000
/** Milliseconds after which a window that says nothing any more is taken to be closed; it speaks every two seconds. */
export const SILENT_AFTER = 10_000
/** How much of the time between two sendings may go into working out sums. */
const WORKING_SHARE = 0.4

const OWN = ['127.0.0.1', 'localhost', '::1']

/** Whether values may be sent there. */
export const mayReach = (host: string, env: NodeJS.ProcessEnv = process.env): boolean =>
  [...OWN, ...(env.OPEN_TIDE_DEVICES ?? '').split(/[\s,]+/)].includes(host.toLowerCase()) && host !== ''

/** How it runs: from a moment of the piece, so fast. */
export interface SenderRun {
  readonly seconds: number
  /** 1 is true time, 0 stands still. */
  readonly pace: number
}

export class Sender {
  private program: Program
  private socket: Socket | null = null
  private ear: Socket | null = null
  private timer: NodeJS.Timeout | null = null
  private from: SenderRun & { readonly at: number } = { seconds: 0, pace: 0, at: 0 }
  private sent = 0
  private limit = ''
  private next = 0
  private says = ''
  by: DeviceStatus['by'] = null

  /** @param heard told what comes in */
  constructor(
    piece: Piece,
    private device: Device,
    private readonly heard: (what: Incoming) => void,
    /** Told when it ends by itself. */
    private readonly ended: () => void = () => {},
  ) {
    this.program = new Program(piece)
  }

  status(): DeviceStatus {
    return { sending: this.timer !== null, by: this.by, packets: this.sent, says: this.says || this.limit }
  }

  /** Whether sums are being worked out. */
  get isPending(): boolean {
    return this.program.queue.isPending
  }

  /** Another state of the piece. */
  show(piece: Piece): void {
    this.program = new Program(piece, this.program)
  }

  begin(by: 'quay' | 'alone', running: SenderRun): void {
    this.from = { ...running, at: performance.now() }
    this.by = by
    if (this.timer) return
    this.socket = createSocket('udp4')
    this.socket.on('error', e => (this.says = e.message))
    this.next = performance.now()
    this.later()
    this.listen()
  }

  /** The next sending: as often as was asked for, or less often where that would be too much. */
  private later(): void {
    const gap = Math.max(1 / this.device.rate, this.copies().length / MOST_A_SECOND) * 1000
    this.next = Math.max(performance.now(), this.next + gap)
    this.timer = setTimeout(() => this.tick(), this.next - performance.now())
    this.timer.unref()
  }

  /** The copies whose values go out, and what is said where they are more than can be sent. */
  private copies(): { channel: Channel; reader: Pick<CompiledExpression, 'at'>; copy: number }[] {
    const all: { channel: Channel; reader: Pick<CompiledExpression, 'at'>; copy: number }[] = []
    for (const channel of this.device.channels) {
      const readers = this.program.slots.get(channel.drive)?.readers ?? []
      for (const [copy, reader] of (channel.address.includes('#') ? readers : readers.slice(0, 1)).entries()) {
        if (all.length === MOST_AT_ONCE) {
          this.limit = `Only the first ${MOST_AT_ONCE} values are sent. Choose fewer drives or copies.`
          return all
        }
        all.push({ channel, reader, copy })
      }
    }
    const often = Math.floor(MOST_A_SECOND / all.length)
    this.limit =
      often < this.device.rate
        ? `${all.length} values are sent ${often} times a second: ${MOST_A_SECOND} values a second is the limit.`
        : ''
    return all
  }

  private listen(): void {
    const { listen } = this.device
    if (listen === null) return
    this.ear = createSocket('udp4')
    this.ear.on('error', e => (this.says = `Nothing can be received on port ${listen}: ${e.message}.`))
    this.ear.on('message', bytes => {
      for (const { address, values } of messagesIn(bytes) ?? []) {
        const what = incomingOf(address, values[0])
        if (what) this.take(what)
      }
    })
    this.ear.bind(listen, '127.0.0.1')
  }

  /** What comes in is told to the window; where there is none, a dial is set here. */
  private take(what: Incoming): void {
    this.heard(what)
    if (this.by !== 'alone' || what.is !== 'dial') return
    const { piece } = this.program
    const found = Object.entries(piece.dials).find(([, d]) => d.name === what.name)
    if (!found || found[1].locked) return
    const value = Math.min(found[1].high, Math.max(found[1].low, what.value))
    this.show(apply(piece, setDial(this.program, found[0], value, this.now(), true)))
  }

  private now() {
    const { seconds, pace, at } = this.from
    return momentOfSeconds(
      fromNumber(seconds + ((performance.now() - at) / 1000) * pace),
      this.program.measures.frameRate,
    )
  }

  /** What goes out now. */
  messages(): Message[] {
    const { measures } = this.program
    const moment = this.now()
    // What takes long to add up is sent when it is there.
    return this.program.queue.withinBudget(() =>
      this.copies().flatMap(({ channel, reader, copy }) => {
        const show = inUnit(propertyOf(this.program, channel.drive).unit, measures)
        const address = channel.address.replaceAll('#', String(copy + 1))
        return isAddress(address) ? [{ address, values: [outOf(channel, show(reader.at(moment)))] }] : []
      }),
    )
  }

  /** Works out what takes long, for a share of the time between two sendings. */
  private work(): void {
    if (!this.isPending) return
    const end = performance.now() + WORKING_SHARE * (1000 / this.device.rate)
    this.program.queue.advanceWhile(() => performance.now() < end)
  }

  private tick(): void {
    if (this.by === 'quay' && performance.now() - this.from.at > SILENT_AFTER) {
      this.stop()
      this.ended()
      return
    }
    this.later()
    try {
      this.work()
      for (const packet of packets(this.messages())) {
        this.socket?.send(packet, this.device.port, this.device.host, e => {
          if (e) this.says = e.message
        })
        this.sent++
      }
    } catch (e) {
      this.says = (e as Error).message
    }
  }

  stop(): void {
    if (this.timer) clearTimeout(this.timer)
    this.timer = null
    this.by = null
    this.socket?.close()
    this.ear?.close()
    this.socket = this.ear = null
  }
}
