/**
 * Live values to a device: the piece runs here, by this machine's clock, and what was chosen of it goes out as OSC over UDP.
 * To this machine alone, unless OPEN_TIDE_DEVICES names others.
 */
import { createSocket, type Socket } from 'node:dgram'
import { Program } from '../../core/engine/program'
import { setDial } from '../../core/engine/retime'
import { limited } from '../../core/form/working'
import { isAddress, messagesIn, packets, type Message } from '../../core/formats/osc/osc'
import { apply } from '../../core/piece/operation'
import { incomingOf, outOf, type Device, type Incoming } from '../../core/piece/device'
import { propertyNamed } from '../../core/piece/properties'
import type { Piece } from '../../core/piece/schema'
import { momentOfSeconds } from '../../core/time/moment'
import { fromNumber } from '../../core/time/rational'
import { inUnit } from '../../core/units/units'

const OWN = ['127.0.0.1', 'localhost', '::1']

/** Whether values may be sent there. */
export const mayReach = (host: string, env: NodeJS.ProcessEnv = process.env): boolean =>
  [...OWN, ...(env.OPEN_TIDE_DEVICES ?? '').split(/[\s,]+/)].includes(host.toLowerCase()) && host !== ''

/** How it runs: from a moment of the piece, so fast. */
export interface Running {
  readonly seconds: number
  /** 1 is true time, 0 stands still. */
  readonly pace: number
}

export interface Status {
  readonly sending: boolean
  /** Who lets it run: a window that plays, or the server alone. */
  readonly by: 'quay' | 'alone' | null
  readonly packets: number
  /** What went wrong last. */
  readonly says: string
}

export class Sender {
  private program: Program
  private values: Float64Array
  private socket: Socket | null = null
  private ear: Socket | null = null
  private timer: NodeJS.Timeout | null = null
  private from: Running & { readonly at: number } = { seconds: 0, pace: 0, at: 0 }
  private sent = 0
  private says = ''
  by: Status['by'] = null

  /** @param heard told what comes in */
  constructor(
    piece: Piece,
    private device: Device,
    private readonly heard: (what: Incoming) => void,
  ) {
    this.program = new Program(piece)
    this.values = new Float64Array(this.program.size)
  }

  status(): Status {
    return { sending: this.timer !== null, by: this.by, packets: this.sent, says: this.says }
  }

  /** Another state of the piece. */
  show(piece: Piece): void {
    this.program = new Program(piece, this.program)
    this.values = new Float64Array(this.program.size)
  }

  begin(by: 'quay' | 'alone', running: Running): void {
    this.from = { ...running, at: performance.now() }
    this.by = by
    if (this.timer) return
    this.socket = createSocket('udp4')
    this.socket.on('error', e => (this.says = e.message))
    this.timer = setInterval(() => this.tick(), 1000 / this.device.rate)
    this.timer.unref()
    this.listen()
  }

  private listen(): void {
    const { listen } = this.device
    if (listen === null) return
    this.ear = createSocket('udp4')
    this.ear.on('error', e => (this.says = `Nothing can be heard on port ${listen}: ${e.message}.`))
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
    const { program } = this
    const moment = this.now()
    // What takes long to add up is sent when it is there.
    limited(() => program.moment(moment, this.values))
    return this.device.channels.flatMap(channel => {
      const slot = program.slots.get(channel.drive)
      if (!slot) return []
      const name = channel.drive.includes('.') ? channel.drive.slice(channel.drive.indexOf('.') + 1) : ''
      const unit = propertyNamed(name)?.unit ?? ''
      const show = inUnit(unit, program.measures)
      const copies = channel.address.includes('#') ? slot.readers.length : 1
      return Array.from({ length: copies }, (_, i) => {
        const value = slot.offset < 0 ? slot.readers[i]!.at(moment) : this.values[slot.offset + i]!
        return { address: channel.address.replaceAll('#', String(i + 1)), values: [outOf(channel, show(value))] }
      }).filter(m => isAddress(m.address))
    })
  }

  private tick(): void {
    try {
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
    if (this.timer) clearInterval(this.timer)
    this.timer = null
    this.by = null
    this.socket?.close()
    this.ear?.close()
    this.socket = this.ear = null
  }
}
