/** How many drives loop: masthead, Lap page, export and the prompt count alike, on pieces made at random. */
import fc from 'fast-check'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { run } from '../../cli/run.ts'
import type { Builder } from '../../core/acts/build.ts'
import { Program } from '../../core/engine/program.ts'
import { anAngle, anAngleOfCopies } from '../../core/testing/made-up-formulas.ts'
import { exampleFair } from '../../core/manual/example-fair.ts'
import type { Piece } from '../../core/piece/schema.ts'
import { expect, test } from './fair.ts'

const PIECES = Number(process.env.PIECES ?? 4)
const SEED = Number(process.env.SEED ?? 20)

/** The example fair with formulas made at random; of those that are too much to be worked out none. */
function pieces(): Piece[] {
  const texts = fc.sample(fc.tuple(anAngle, anAngle, anAngleOfCopies, fc.integer({ min: 2, max: 9 })), {
    seed: SEED,
    numRuns: PIECES * 3,
  })
  return texts
    .map(([carousel, flag, mount, count]) => {
      const { b, ids }: { b: Builder; ids: Record<string, string> } = exampleFair()
      const part = b.piece.parts[ids.Mount!]!
      b.do({
        undoLabel: '',
        puts: [{ in: 'parts', id: ids.Mount!, value: { ...part, copies: { ...part.copies!, count } as never } }],
      })
      b.drive(ids.Carousel!, 'rotation', carousel)
      b.drive(ids.Flag!, 'rotation', flag)
      b.drive(ids.Mount!, 'rotation', mount)
      b.drive(ids.Idler!, 'x', 'ramp(length: 2s, to: 90px)')
      return b.piece
    })
    .filter(p => [...new Program(p).slots.values()].every(s => s.problems.length === 0))
    .slice(0, PIECES)
}

/** What the prompt prints. */
async function printed(args: string[]): Promise<string> {
  const lines: string[] = []
  const log = console.log
  console.log = (...words: unknown[]) => void lines.push(words.join(' '))
  await run(args).finally(() => (console.log = log))
  return lines.join('\n')
}

test('masthead, Lap page, export and the prompt agree', async ({ page }) => {
  test.setTimeout(60_000 + PIECES * 30_000)
  const folder = mkdtempSync(join(tmpdir(), 'tide-counts-'))
  let told = 0
  for (const [k, document] of pieces().entries()) {
    const answer = await page.request.post('/api/pieces', {
      data: { document: { ...document, title: `Counted ${k}` } },
    })
    const { id } = (await answer.json()) as { id: string }
    await page.goto(`/piece/${id}`)
    await page.getByRole('tab', { name: 'Lap' }).click()
    const lap = page.locator('[data-closing]')
    // Nothing is told of none before all have been looked at.
    await expect(lap).toHaveText(/(checking …|\d of [1-9])/)
    await expect(lap).toHaveText(/^\s*\d+ of \d+ loops?(, [^,…]*)?\s*$/)
    const onLap = (await lap.textContent())!.trim()
    const [loop, all] = /(\d+) of (\d+) loops?/.exec(onLap)!.slice(1).map(Number) as [number, number]
    const later = /, (.*)$/.exec(onLap)?.[1] ?? ''
    const mast = page.locator('[data-lap-state]')
    await expect(mast).toContainText(`${loop} of ${all}`)
    expect(await mast.getAttribute('data-tip')).toContain(later)

    await page.getByRole('button', { name: 'Export' }).first().click()
    const dialog = page.getByRole('dialog')
    const says = (await dialog.locator('[data-plan]').textContent())!
    const open = /(\d+) of (\d+) drives? do(?:es)?n’t loop here/.exec(says)
    expect(open ? Number(open[2]) - Number(open[1]) : all, `${onLap} | ${says}`).toBe(loop)
    if (open) expect(Number(open[2])).toBe(all)
    await page.keyboard.press('Escape')

    const file = join(folder, `${k}.json`)
    writeFileSync(file, JSON.stringify(document))
    const checked = await printed(['check', file])
    expect(checked, onLap).toContain(`${loop} of ${all} `)
    if (later) expect(checked).toContain(later)
    told++
  }
  rmSync(folder, { recursive: true })
  expect(told).toBe(PIECES)
})
