/** What of each piece goes to a device, as it was set. */
import { eq } from 'drizzle-orm'
import { newDevice, type Device } from '../../core/piece/device'
import type { Database } from './database'
import { devices } from './schema'

export async function readDevice(db: Database, piece: string): Promise<Device> {
  const [row] = await db.select().from(devices).where(eq(devices.piece, piece))
  return row?.device ?? newDevice()
}

export async function keepDevice(db: Database, piece: string, device: Device): Promise<void> {
  await db.insert(devices).values({ piece, device }).onConflictDoUpdate({ target: devices.piece, set: { device } })
}
