/** Fine threads from the part in hand to the parts that its formulas read, and from it to those that read it. */
import { drivenPart } from '~~/core/piece/drive-key.ts'
import type { Program } from '~~/core/engine/program.ts'
import { linksOf } from '~~/core/insight/links.ts'
import type { Body } from '~~/core/rig/body.ts'
import { seen } from '~~/core/rig/depth/eye.ts'
import type { Scene } from '~~/core/rig/scene.ts'

/** From what is read to what reads it, on the stage. */
export interface Thread {
  readonly from: readonly [number, number]
  readonly to: readonly [number, number]
}

/** Threads of one part, most. */
const MOST = 40

export function useThreads(): (scene: Scene, id: string, instance: number) => Thread[] {
  // The order stands while every formula reads what it read.
  let known: { readonly order: Program['meanings']['order']; readonly links: ReturnType<typeof linksOf> } | null = null
  return (scene, id, instance) => {
    const { program } = scene
    const { order } = program.meanings
    if (known?.order !== order) known = { order, links: linksOf(program) }
    const [read, readBy] = [new Set<string>(), new Set<string>()]
    for (const [key, links] of known.links) {
      if (drivenPart(key) !== id) continue
      for (const other of links.reads) read.add(drivenPart(other))
      for (const other of links.readBy) readBy.add(drivenPart(other))
    }
    const pin = (body: Body, i: number): readonly [number, number] => {
      const { x, y } = body.part.pivot
      return seen(scene.eye, body.worlds[Math.min(i, body.count - 1)]!, x, y)
    }
    const own = scene.bodies.get(id)
    if (!own) return []
    const here = pin(own, instance)
    const others = (ids: ReadonlySet<string>) =>
      [...ids].flatMap(other => {
        const body = other === id ? undefined : scene.bodies.get(other)
        return body ? [pin(body, body.count === own.count ? instance : 0)] : []
      })
    return [...others(read).map(from => ({ from, to: here })), ...others(readBy).map(to => ({ from: here, to }))].slice(
      0,
      MOST,
    )
  }
}
