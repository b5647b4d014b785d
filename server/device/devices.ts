/** The devices of all pieces, while the server runs: one sender each, and who listens to what comes in. */
import type { Device, Incoming } from '../../core/piece/device'
import type { Piece } from '../../core/piece/schema'
import type { DeviceStatus } from '../../core/piece/api'
import { Sender, type SenderRun } from './sender'

const senders = new Map<string, Sender>()
const listeners = new Map<string, Set<(what: Incoming) => void>>()

export const statusOf = (piece: string): DeviceStatus =>
  senders.get(piece)?.status() ?? { sending: false, by: null, packets: 0, says: '' }

/** Lets a piece run to its device: whoever asks last, a window that plays or the server alone, says where it is. */
export function send(
  piece: string,
  document: Piece | null,
  device: Device,
  by: 'quay' | 'alone',
  running: SenderRun,
): DeviceStatus {
  let sender = senders.get(piece)
  if (!sender) {
    if (!document) return statusOf(piece)
    sender = new Sender(
      document,
      device,
      what => listeners.get(piece)?.forEach(tell => tell(what)),
      () => senders.delete(piece),
    )
    senders.set(piece, sender)
  } else if (document) sender.show(document)
  sender.begin(by, running)
  return sender.status()
}

export function silence(piece: string): void {
  senders.get(piece)?.stop()
  senders.delete(piece)
}

/** @returns what ends the listening */
export function hear(piece: string, tell: (what: Incoming) => void): () => void {
  const all = listeners.get(piece) ?? new Set()
  listeners.set(piece, all)
  all.add(tell)
  return () => {
    all.delete(tell)
    if (all.size === 0) listeners.delete(piece)
  }
}

export function stopDevices(): void {
  for (const piece of senders.keys()) silence(piece)
}
