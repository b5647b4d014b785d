/** Saving when things go wrong: answers that are lost, servers that are away, pieces that were changed elsewhere. */
import type { Page } from '@playwright/test'
import { expect, formula, freshFair, halt, saved, test, values, write, keyOf } from './fair.ts'

const saves = /\/api\/pieces\/[^/]+$/
const ROTATION = 'Carousel rotation'
const alert = (page: Page) => page.getByRole('alert').first()

/** Answers every save in a way of its own; others go through. */
const onSave = (page: Page, answer: Parameters<Page['route']>[1]) =>
  page.route(saves, (route, request) => (request.method() === 'PUT' ? answer(route, request) : route.continue()))

/** The tab ends as in a crash: nothing of the page runs as it goes, so that nothing is sent on leaving. */
async function crash(page: Page): Promise<void> {
  await page.evaluate(() => (window.fetch = () => Promise.reject(new Error('the tab is gone'))))
  await page.close({ runBeforeUnload: false })
}

async function stored(
  page: Page,
  id: string,
): Promise<{ revision: number; document: { title: string; drives: Record<string, { text: string }> } }> {
  return (await page.request.get(`/api/pieces/${id}`)).json()
}
const textOf = async (page: Page, id: string): Promise<string> => {
  const { drives } = (await stored(page, id)).document
  return Object.values(drives).find(d => d.text.startsWith('time * '))!.text
}

/** The unsaved document that this browser stores for a piece, as text; empty if there is none. */
const keptHere = (page: Page, id: string): Promise<string> =>
  page.evaluate(
    id =>
      new Promise<string>((done, failed) => {
        const opening = indexedDB.open('open-tide')
        opening.onerror = () => failed(new Error('no store'))
        opening.onsuccess = () => {
          const reading = opening.result.transaction('unsaved').objectStore('unsaved').get(id)
          reading.onsuccess = () => {
            opening.result.close()
            const kept = reading.result as { document: string } | undefined
            done(kept?.document ?? '')
          }
        }
      }),
    id,
  )

test('a save whose answer was lost is no conflict, and is done once', async ({ page }) => {
  const id = await freshFair(page)
  await halt(page)
  let lost = 0
  await onSave(page, async route => {
    if (lost++ > 0) return route.continue()
    await route.fetch()
    await route.abort()
  })
  await write(page, ROTATION, 'time * 33deg/s')
  await expect(alert(page)).toContainText('Not saved.')
  await expect(alert(page)).toContainText('will be saved automatically')
  await write(page, ROTATION, 'time * 34deg/s')
  await expect(page.getByText('Not saved.')).toHaveCount(0)
  await saved(page)
  await expect.poll(() => textOf(page, id)).toBe('time * 34deg/s')
  // The first state, the one whose answer was lost, and the last: none twice.
  expect((await stored(page, id)).revision).toBe(3)
})

test('nonsense for an answer, refusals, and a full disk end in not saved with what to do', async ({ page }) => {
  const id = await freshFair(page)
  await halt(page)
  let answer = { status: 200, contentType: 'text/html', body: '<p>hello</p>' }
  await onSave(page, route => route.fulfill(answer))
  await write(page, ROTATION, 'time * 21deg/s')
  await expect(alert(page)).toContainText('answer couldn’t be understood')
  answer = {
    status: 507,
    contentType: 'application/json',
    body: '{"message":"The disk is full: nothing was saved. Make room."}',
  }
  await page.getByRole('button', { name: 'Save now' }).click()
  await expect(alert(page)).toContainText('The disk is full')
  answer = { status: 413, contentType: 'application/json', body: '{"message":"This piece is larger than 8 MB."}' }
  await page.getByRole('button', { name: 'Save now' }).click()
  await expect(alert(page)).toContainText('larger than 8 MB')
  await expect(alert(page)).not.toContainText('by itself')
  await page.unroute(saves)
  await page.getByRole('button', { name: 'Save now' }).click()
  await expect(page.getByText('Not saved.')).toHaveCount(0)
  expect(await textOf(page, id)).toBe('time * 21deg/s')
})

test('left through the Harbour while the server is away: asked, kept in this browser, and saved when opened again', async ({
  page,
}) => {
  const id = await freshFair(page)
  await halt(page)
  await onSave(page, route => route.abort())
  await write(page, ROTATION, 'time * 41deg/s')
  await expect(alert(page)).toContainText('Not saved.')
  await page.getByRole('link', { name: 'Harbour' }).click()
  await page.getByRole('button', { name: 'Stay' }).click()
  await expect(page).toHaveURL(new RegExp(id))
  await page.getByRole('link', { name: 'Harbour' }).click()
  await page.getByRole('button', { name: 'Leave anyway' }).click()
  await expect(page.getByText(/(is|are) kept in this browser/)).toBeVisible()
  // Another piece says nothing of it.
  await page.getByRole('link', { name: 'Open Swing tower' }).click()
  await expect(page.locator('[data-saving]')).toHaveText('saved')
  await expect(page.getByText('Not saved.')).toHaveCount(0)
  await page.unroute(saves)
  await page.goto(`/piece/${id}`)
  await expect(formula(page, ROTATION)).toHaveText('time * 41deg/s')
  await saved(page)
  await expect.poll(() => textOf(page, id)).toBe('time * 41deg/s')
})

test('a tab that crashed loses nothing', async ({ page, context }) => {
  const id = await freshFair(page)
  await halt(page)
  await onSave(page, route => route.abort())
  await write(page, ROTATION, 'time * 51deg/s')
  await expect(alert(page)).toContainText('Not saved.')
  await crash(page)
  const again = await context.newPage()
  await again.goto(`/piece/${id}`)
  await expect(again.getByText('Unsaved changes were restored.')).toBeVisible()
  await expect(formula(again, ROTATION)).toHaveText('time * 51deg/s')
  await expect.poll(() => textOf(again, id)).toBe('time * 51deg/s')
})

test('what is dragged is saved when it is let go, and a tab that crashes before keeps it up to two seconds ago', async ({
  page,
  context,
}) => {
  const id = await freshFair(page)
  await halt(page)
  await saved(page)
  let sent = 0
  await onSave(page, route => (sent++, route.continue()))
  const handle = formula(page, ROTATION).locator('[data-handle]').first()
  await handle.scrollIntoViewIfNeeded()
  const { x, y } = (await handle.boundingBox())!
  const before = await textOf(page, id)
  await page.mouse.move(x + 4, y + 4)
  await page.mouse.down()
  for (const dx of [12, 24, 40]) await page.mouse.move(x + 4 + dx, y + 4)
  // Not dragged it would be saved after 80 ms; after 5 s it is saved in any case.
  await page.waitForTimeout(900)
  expect([sent, await textOf(page, id)]).toEqual([0, before])
  await page.mouse.up()
  await expect.poll(() => sent).toBe(1)
  await saved(page)
  const after = await textOf(page, id)
  expect(after).not.toBe(before)
  // Held for long, it is kept in the browser all the same.
  await onSave(page, route => route.abort())
  const there = (await handle.boundingBox())!
  await page.mouse.move(there.x + 4, there.y + 4)
  await page.mouse.down()
  for (const dx of [8, 16, 24, 32, 40]) await page.mouse.move(there.x + dx, there.y + 4)
  await expect.poll(() => formula(page, ROTATION).innerText()).not.toContain(after)
  const dragged = (await formula(page, ROTATION).innerText()).trim()
  await expect.poll(() => keptHere(page, id), { timeout: 10_000 }).toContain(dragged)
  await crash(page)
  const again = await context.newPage()
  await again.goto(`/piece/${id}`)
  await expect(again.getByText('Unsaved changes were restored.')).toBeVisible()
  await expect(formula(again, ROTATION)).toContainText(dragged)
})

test('what an earlier version kept in the browser is restored', async ({ page }) => {
  const id = await freshFair(page)
  await page.goto('/')
  await page.evaluate(async id => {
    const stored = (await (await fetch(`/api/pieces/${id}`)).json()) as { revision: number; document: object }
    const kept = { revision: stored.revision, document: { ...stored.document, title: 'Kept earlier' }, sent: null }
    await new Promise<void>((done, failed) => {
      const opening = indexedDB.open('open-tide')
      opening.onerror = () => failed(new Error('no store'))
      opening.onsuccess = () => {
        const writing = opening.result.transaction('unsaved', 'readwrite')
        writing.objectStore('unsaved').put(kept, id)
        writing.oncomplete = () => {
          opening.result.close()
          done()
        }
      }
    })
  }, id)
  await page.goto(`/piece/${id}`)
  await expect(page.getByText('Unsaved changes were restored.')).toBeVisible()
  await expect(page.getByText('Kept earlier').first()).toBeVisible()
})

test('a tab that crashed while an answer was lost keeps what came after it', async ({ page, context }) => {
  const id = await freshFair(page)
  await halt(page)
  let first = true
  await onSave(page, async route => {
    if (first) {
      first = false
      await route.fetch()
    }
    await route.abort()
  })
  await write(page, ROTATION, 'time * 52deg/s')
  await expect(alert(page)).toContainText('Not saved.')
  await expect.poll(() => textOf(page, id)).toBe('time * 52deg/s')
  await write(page, ROTATION, 'time * 53deg/s')
  await expect.poll(() => keptHere(page, id)).toContain('time * 53deg/s')
  await crash(page)
  const again = await context.newPage()
  await again.goto(`/piece/${id}`)
  await expect(formula(again, ROTATION)).toHaveText('time * 53deg/s')
  await saved(again)
  await expect.poll(() => textOf(again, id)).toBe('time * 53deg/s')
  const versions = (await (await again.request.get(`/api/pieces/${id}/versions`)).json()) as { state: string }[]
  expect(versions.map(v => v.state)).toEqual(['saved', 'saved', 'saved'])
})

test('what a crashed tab had and another window overtook is among the versions', async ({ page, context }) => {
  const id = await freshFair(page)
  await halt(page)
  await onSave(page, route => route.abort())
  await write(page, ROTATION, 'time * 54deg/s')
  await expect(alert(page)).toContainText('Not saved.')
  await crash(page)
  const again = await context.newPage()
  const { revision, document } = await stored(again, id)
  await again.request.put(`/api/pieces/${id}`, { data: { revision, document: { ...document, seed: 5 } } })
  await again.goto(`/piece/${id}`)
  await expect(again.getByText('are in its version history')).toBeVisible()
  await again.locator('[data-tip="Version history"]').click()
  await again
    .getByRole('listitem')
    .filter({ hasText: 'conflicting copy' })
    .getByRole('button', { name: 'Restore' })
    .click()
  await expect(formula(again, ROTATION)).toHaveText('time * 54deg/s')
})

test('renamed in the Harbour while it is open: both changes stay', async ({ page }) => {
  const id = await freshFair(page)
  await halt(page)
  await page.request.patch(`/api/pieces/${id}`, { data: { title: 'Pier at dusk' } })
  await write(page, ROTATION, 'time * 61deg/s')
  await expect(page.getByRole('button', { name: 'Pier at dusk' })).toBeVisible()
  await saved(page)
  const { document } = await stored(page, id)
  expect(document.title).toBe('Pier at dusk')
  expect(await textOf(page, id)).toBe('time * 61deg/s')
})

test('deleted elsewhere: it says so, and what stands here can be kept', async ({ page }) => {
  const id = await freshFair(page)
  await halt(page)
  await page.request.delete(`/api/pieces/${id}`)
  await write(page, ROTATION, 'time * 71deg/s')
  await expect(alert(page)).toContainText('This piece was deleted.')
  await page.getByRole('button', { name: 'Keep it as a new piece' }).click()
  await expect(page).not.toHaveURL(new RegExp(id))
  await expect(formula(page, ROTATION)).toHaveText('time * 71deg/s')
  await saved(page)
})

test('every refused state is among the versions, and can be taken back', async ({ page, context }) => {
  const id = await freshFair(page)
  await halt(page)
  const other = await context.newPage()
  await other.goto(`/piece/${id}`)
  await expect(formula(other, ROTATION)).toBeVisible()
  await halt(other)
  await write(page, ROTATION, 'time * 11deg/s')
  await saved(page)
  await write(other, ROTATION, 'time * 22deg/s')
  await expect(alert(other)).toContainText('changed in another window')
  await write(other, ROTATION, 'time * 23deg/s')
  await expect
    .poll(async () => ((await (await page.request.get(`/api/pieces/${id}/versions`)).json()) as unknown[]).length)
    .toBe(4)
  await other.close()
  await page.locator('[data-tip="Version history"]').click()
  const refused = page.getByRole('listitem').filter({ hasText: 'conflicting copy' })
  await expect(refused).toHaveCount(2)
  await refused.first().getByRole('button', { name: 'Restore' }).click()
  await expect(formula(page, ROTATION)).toHaveText('time * 23deg/s')
  const key = await keyOf(page, ROTATION)
  expect((await values(page, key, 1))[0]).toBeCloseTo(23 / 360, 9)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(formula(page, ROTATION)).toHaveText('time * 11deg/s')
  await saved(page)
})

test('where site data is blocked it starts, says what it cannot keep, and saves all the same', async ({ page }) => {
  await page.addInitScript(() => {
    const refuse = () => {
      throw new DOMException('Access is denied for this document.', 'SecurityError')
    }
    Object.defineProperty(window, 'localStorage', { get: refuse })
    Object.defineProperty(window, 'indexedDB', { get: refuse })
  })
  for (const path of ['/', '/manual']) {
    await page.goto(path)
    await expect(page.locator('main, h1').first()).toBeVisible()
  }
  const id = await freshFair(page)
  await expect(page.locator('[data-blocked]')).toContainText('This browser blocks site data.')
  await write(page, 'Carousel rotation', 'time * 12deg/s')
  await saved(page)
  await page.getByRole('button', { name: 'Night watch' }).click()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'night')
  const { document } = (await (await page.request.get(`/api/pieces/${id}`)).json()) as {
    document: { drives: Record<string, { text: string }> }
  }
  expect(Object.values(document.drives).map(d => d.text)).toContain('time * 12deg/s')
})

test('a tab that is closed right after a change has saved it', async ({ page, context }) => {
  const made = await page.request.post('/api/pieces', { data: { title: 'Closed at once' } })
  const { id } = (await made.json()) as { id: string }
  for (let n = 1; n <= 5; n++) {
    const tab = await context.newPage()
    await tab.goto(`/piece/${id}`)
    await tab.getByRole('tab', { name: 'Piece' }).click()
    await tab.getByRole('textbox', { name: 'Width' }).fill(String(1000 + n))
    await tab.getByRole('textbox', { name: 'Width' }).press('Enter')
    await tab.close({ runBeforeUnload: false })
    await expect
      .poll(async () => {
        const { document } = (await (await page.request.get(`/api/pieces/${id}`)).json()) as {
          document: { stage: { width: number } }
        }
        return document.stage.width
      })
      .toBe(1000 + n)
  }
})

test('what is pressed in the masthead stands still while a change is saved', async ({ page }) => {
  await freshFair(page)
  await halt(page)
  // Where the buttons are in every frame, by the words of that moment.
  await page.evaluate(() => {
    const seen: Record<string, string[]> = {}
    Object.assign(window, { seen })
    const look = () => {
      const says = document.querySelector('[data-saving]')!.textContent!.trim()
      const places = [...document.querySelectorAll('header button')]
        .filter(b => /^(Undo|Redo|Export|Hand over)$/.test(b.getAttribute('aria-label') ?? b.textContent!.trim()))
        .map(b => Math.round(b.getBoundingClientRect().left))
      const is = (seen[says] ??= [])
      if (is.at(-1) !== places.join()) is.push(places.join())
      requestAnimationFrame(look)
    }
    requestAnimationFrame(look)
  })
  await onSave(page, async route => {
    await new Promise(go => setTimeout(go, 300))
    await route.continue()
  })
  await write(page, ROTATION, 'time * 33deg/s')
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).first().click()
  await expect(page.locator('[data-saving]')).toHaveText('saving …')
  await saved(page)
  const seen = await page.evaluate(() => (window as unknown as { seen: Record<string, string[]> }).seen)
  expect(Object.keys(seen)).toEqual(expect.arrayContaining(['saved', 'saving …', 'saved just now']))
  const places = new Set(Object.values(seen).flat())
  expect([...places][0]!.split(',')).toHaveLength(4)
  expect([...places], 'the buttons were in one place all the time').toHaveLength(1)
})
