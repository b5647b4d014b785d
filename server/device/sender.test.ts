/** What goes out to a device: sums that take long are worked out between sendings, and no piece stalls the server. */
import { createSocket } from 'node:dgram'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { Builder } from '../../core/acts/build'
import { messagesIn } from '../../core/formats/osc/osc'
import { newDevice, type Device } from '../../core/piece/device'
import type { Piece } from '../../core/piece/schema'
import { MOST_AT_ONCE, Sender, SILENT_AFTER } from './sender'

const open: { stop: () => void }[] = []
afterEach(() => {
  open.splice(0).forEach(o => o.stop())
  vi.restoreAllMocks()
})

/** A device that keeps what it hears. */
async function device(drive: string, address: string, more: Partial<Device> = {}) {
  const ear = createSocket('udp4')
  const heard: { address: string; value: number }[][] = []
  ear.on('message', bytes =>
    heard.push((messagesIn(bytes) ?? []).map(m => ({ address: m.address, value: Number(m.values[0]) }))),
  )
  await new Promise<void>(done => ear.bind(0, '127.0.0.1', done))
  open.push({ stop: () => ear.close() })
  const channel = { drive, address, low: 0, high: 1e6, outLow: 0, outHigh: 1e6 }
  return { heard, device: { ...newDevice(), port: ear.address().port, rate: 60, channels: [channel], ...more } }
}
function sender(piece: Piece, to: Device, ended?: () => void): Sender {
  const made = new Sender(piece, to, () => {}, ended)
  open.push(made)
  return made
}
const until = async (good: () => boolean, ms = 8000) => {
  for (const end = Date.now() + ms; Date.now() < end && !good();) await new Promise(r => setTimeout(r, 20))
  return good()
}

describe('a device', () => {
  it('gets a sum that takes long once it is worked out, and the queue does not grow', async () => {
    const b = new Builder('Sum', 1)
    const part = b.part('Lamp', { type: 'ellipse' })
    b.drive(part, 'x', 'accumulate((1 + noise(8Hz) ^ 2) * 20px/s)')
    const { heard, device: to } = await device(`${part}.x`, '/x')
    const made = sender(b.piece, to)
    made.begin('alone', { seconds: 600, pace: 1 })
    expect(await until(() => (heard.at(-1)?.[0]?.value ?? 0) > 12_000)).toBe(true)
    expect(heard[0]![0]!.value).toBe(0)
    expect(await until(() => !made.isPending, 1000)).toBe(true)
  })
  it('gets no more at once and in a second than the server can spare', async () => {
    const b = new Builder('Many', 1)
    const copies = { layout: 'row', count: 5000, dx: 1, dy: 0 } as const
    const part = b.part('Lamp', { type: 'ellipse' }, { copies })
    b.drive(part, 'x', 'sine(1Hz, 5px) + index * 1px')
    const { heard, device: to } = await device(`${part}.x`, '/x/#', { rate: 120 })
    const made = sender(b.piece, to)
    made.begin('alone', { seconds: 0, pace: 1 })
    expect(made.messages()).toHaveLength(MOST_AT_ONCE)
    await new Promise(r => setTimeout(r, 1000))
    expect(heard.length).toBeGreaterThan(0)
    expect(heard.flat().length).toBeLessThanOrEqual(24_000)
    expect(made.status().says).toContain('Only the first 2000 values')
  })
  it('hears nothing any more from a window that has been closed', async () => {
    const b = new Builder('Closed', 1)
    const part = b.part('Lamp', { type: 'ellipse' })
    b.drive(part, 'x', 'sine(1Hz, 5px)')
    const { device: to } = await device(`${part}.x`, '/x')
    let ended = false
    const made = sender(b.piece, to, () => (ended = true))
    made.begin('quay', { seconds: 0, pace: 1 })
    expect(made.status().sending).toBe(true)
    const now = performance.now()
    vi.spyOn(performance, 'now').mockReturnValue(now + SILENT_AFTER + 1000)
    expect(await until(() => ended, 2000)).toBe(true)
    expect(made.status().sending).toBe(false)
  })
})
