/** How many times a part looks the same in a turn, held against what the stage draws: shapes, pivots and fills at random. */
import { Builder } from '../../core/acts/build.ts'
import { symmetryIn, symmetryOf } from '../../core/piece/symmetry.ts'
import type { Piece, Shape } from '../../core/piece/schema.ts'
import { expect, goTo, test } from './fair.ts'
import { openPiece, stagePicture } from './on-stage.ts'

const PARTS = Number(process.env.PARTS ?? 32)
const SEED = Number(process.env.SEED ?? 7)
/** Places on the stage, px apart. */
const [ACROSS, DOWN, APART] = [8, 4, 156]

function* chance(seed: number): Generator<number, never> {
  for (let s = seed; ;) yield (s = (s * 1103515245 + 12345) % 2147483648) / 2147483648
}
const draws = chance(SEED)
const draw = () => draws.next().value
const among = <T>(...of: readonly [T, ...T[]]): T => of[Math.floor(draw() * of.length)] as T
const whole = (low: number, high: number) => low + Math.floor(draw() * (high - low + 1))

type Numbers = Readonly<Record<string, number>>

function shape(): Shape {
  return among<() => Shape>(
    () => ({ type: 'rectangle' }),
    () => ({ type: 'ellipse' }),
    () => ({ type: 'polygon', sides: whole(3, 9) }),
    () => ({ type: 'star', points: whole(3, 9) }),
    () => ({ type: 'gear', teeth: among(8, 12, 15, 16, 18), spokes: among(0, 2, 3, 4, 5, 6), module: 5 }),
  )()
}

/** One part in each place; rotated by what it is said to look the same after, from second 1 on. */
function sheet(): { document: Piece; turns: { name: string; at: readonly [number, number]; by: number }[] } {
  const b = new Builder('Symmetries', 3)
  const made: { id: string; name: string; at: [number, number] }[] = []
  for (let k = 0; k < ACROSS * DOWN; k++) {
    const of = shape()
    const at: [number, number] = [
      ((k % ACROSS) - (ACROSS - 1) / 2) * APART,
      (Math.floor(k / ACROSS) - (DOWN - 1) / 2) * 170,
    ]
    const pivot = among({ x: 0, y: 0 }, { x: 0, y: 0 }, { x: 0, y: 0 }, { x: among(-20, 12), y: among(0, 15) })
    const size = whole(50, 76)
    const even = draw() < 0.5
    const id = b.part(
      `P${k}`,
      of,
      {
        pivot,
        symmetry: symmetryOf(of),
        ...among<{ gradientFrame?: 'stage' }>({}, {}, { gradientFrame: 'stage' }),
      },
      {
        x: at[0],
        y: at[1],
        ...(of.type === 'rectangle' || of.type === 'ellipse'
          ? { width: size, height: even ? size : whole(26, 44) }
          : {}),
        ...(of.type === 'polygon' || of.type === 'star' ? { radius: size / 2 } : {}),
        ...among<Numbers>({}, {}, { gradient: 100, gradientTurn: among(0, 90, 33), gradientLightness: 95 }),
        ...among<Numbers>(
          {},
          {},
          { strokeWidth: 5, strokeLightness: 20 },
          { strokeWidth: 5, strokeLightness: 20, dash: 14, gap: 9 },
        ),
        ...among<Numbers>({}, {}, { scaleX: 70 }, { scale: 80 }),
        ...among<Numbers>({}, {}, {}, { lineEnd: 60, strokeWidth: 6 }),
      },
    )
    if (draw() < 0.15)
      b.part(`Spot${k}`, { type: 'ellipse' }, { parent: id }, { x: 14, width: 12, height: 12, fillLightness: 10 })
    made.push({ id, name: `${of.type} ${k}`, at })
  }
  const turns = made.map(({ id, name, at }) => {
    const by = 360 / symmetryIn(b.piece, id).turns
    b.drive(id, 'rotation', `step(1s, time) * ${by}deg`)
    return { name: `${name} ${JSON.stringify(b.piece.parts[id])}`, at, by }
  })
  return { document: b.piece, turns }
}

test('turned by what it is said to look the same after, a part is the same picture', async ({ page }) => {
  const sheets = Math.ceil(PARTS / (ACROSS * DOWN))
  test.setTimeout(60_000 + sheets * 40_000)
  let less = 0
  for (let n = 0; n < sheets; n++) {
    const { document, turns } = sheet()
    await openPiece(page, document)
    await page.keyboard.press('Escape')
    const pictures: string[] = []
    for (const t of ['0', '2']) {
      await goTo(page, t)
      pictures.push((await stagePicture(page)).toString('base64'))
    }
    const off = await page.evaluate(
      async ([one, two, places]) => {
        const read = async (picture: string) => {
          const bytes = Uint8Array.from(atob(picture), c => c.charCodeAt(0))
          const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }))
          const c = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d', { willReadFrequently: true })!
          c.drawImage(bitmap, 0, 0)
          return { c, scale: bitmap.width / 1280 }
        }
        const [a, b] = [await read(one), await read(two)]
        return places.map(([x, y]) => {
          const side = Math.floor(150 * a.scale)
          const [px, py] = [Math.round((x + 640 - 75) * a.scale), Math.round((360 - y - 75) * a.scale)]
          const [p, q] = [a, b].map(of => of.c.getImageData(px, py, side, side).data) as [
            Uint8ClampedArray,
            Uint8ClampedArray,
          ]
          let differing = 0
          for (let k = 0; k < p.length; k += 4)
            if (Math.max(...[0, 1, 2].map(i => Math.abs(p[k + i]! - q[k + i]!))) > 70) differing++
          return differing / (side * side)
        })
      },
      [pictures[0]!, pictures[1]!, turns.map(t => t.at)] as const,
    )
    off.forEach((share, k) => expect(share, turns[k]!.name).toBeLessThan(0.006))
    less += turns.filter(t => t.by < 360).length
  }
  // Enough of them look the same after less than a whole turn for this to say something.
  expect(less).toBeGreaterThan(sheets * 8)
})
