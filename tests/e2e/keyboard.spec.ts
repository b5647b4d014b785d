/** Whole tasks by keys alone: nothing here touches the mouse. */
import type { Page } from '@playwright/test'
import { expect, freshFair, keyOf, saved, test, values } from './fair.ts'

/** Find anything, and go to the first that is found. */
async function find(page: Page, words: string): Promise<void> {
  await page.keyboard.press('/')
  await expect(page.locator('[role=dialog] input')).toBeFocused()
  await page.keyboard.type(words)
  await expect(page.getByRole('option').first()).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog', { name: 'Find anything' })).toHaveCount(0)
}
/** Another text for the formula in hand. */
async function rewrite(page: Page, text: string): Promise<void> {
  await page.keyboard.press('Enter')
  await expect(page.locator('.cm-content:focus')).toHaveCount(1)
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.insertText(text)
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
}
/** What has the focus, as it is called. */
const called = (page: Page) =>
  page.evaluate(() => {
    const at = document.activeElement
    return (at?.getAttribute('aria-label') ?? (at as HTMLElement | null)?.innerText ?? '').trim()
  })
async function tabTo(page: Page, name: RegExp, back = false): Promise<void> {
  for (let k = 0; k < 400; k++) {
    await page.keyboard.press(back ? 'Shift+Tab' : 'Tab')
    if (name.test(await called(page))) return
  }
  throw new Error(`Tab never came to ${String(name)}.`)
}
/** The next page of the desk until it is this one. */
async function turnTo(page: Page, name: string): Promise<void> {
  for (let k = 0; k < 6; k++) {
    if ((await page.getByRole('tab', { name, exact: true }).getAttribute('aria-selected')) === 'true') return
    await page.keyboard.press('d')
  }
  await expect(page.getByRole('tab', { name, exact: true })).toHaveAttribute('aria-selected', 'true')
}

test.beforeEach(async ({ page }) => {
  await freshFair(page, 'whole')
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
})

test('a platform drives a canopy and a drum in ratios; one is made two-way, found again, and cut', async ({ page }) => {
  await find(page, 'canopy rotation')
  await rewrite(page, 'carousel.rotation * -0.3')
  await find(page, 'tombola drum rotation')
  await rewrite(page, 'carousel.rotation * 1.75')
  const [carousel, drum] = [await keyOf(page, 'Carousel rotation'), await keyOf(page, 'Tombola drum rotation')]
  expect((await values(page, drum, 3))[0]).toBeCloseTo((await values(page, carousel, 3))[0]! * 1.75, 12)
  await turnTo(page, 'Links')
  const count = page.locator('[data-count]')
  const links = Number(/\d+/.exec((await count.textContent())!)![0])
  await tabTo(page, /^Search links$/)
  await page.keyboard.type('tombola')
  await tabTo(page, /^Carousel rotation drives Tombola drum rotation/)
  await page.keyboard.press('Enter')
  await tabTo(page, /^Two-way$/)
  await page.keyboard.press('Enter')
  await expect(count).toContainText('1 two-way')
  expect((await values(page, drum, 5))[0]).toBeCloseTo((await values(page, carousel, 5))[0]! * 1.75, 9)
  await tabTo(page, /^Unlink$/)
  await page.keyboard.press('Enter')
  await expect(count).toHaveText(`${links - 1} links`)
  await page.keyboard.press('ControlOrMeta+z')
  await expect(count).toContainText('1 two-way')
  await saved(page)
})

test('parts follow one another by a share and a lag, and both are tuned in one place', async ({ page }) => {
  await turnTo(page, 'Links')
  await tabTo(page, /^Chain…$/)
  await page.keyboard.press('Enter')
  for (const part of ['Carousel', 'Rim', 'Platform', 'Deck line']) {
    await tabTo(page, new RegExp(`^${part}$`))
    await page.keyboard.press('Enter')
  }
  for (const [field, value] of [
    ['Share, %', '80'],
    ['Lag, seconds', '0.09'],
  ] as const) {
    await tabTo(page, new RegExp(`^${field}$`))
    await page.keyboard.press('ControlOrMeta+a')
    await page.keyboard.type(value)
  }
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  // Lines far from what is seen are not on the page: each is found first.
  await find(page, 'deck line rotation')
  const last = await keyOf(page, 'Deck line rotation')
  await find(page, 'carousel rotation')
  const first = await keyOf(page, 'Carousel rotation')
  const share = async () => (await values(page, last, 9))[0]! / (await values(page, first, 9 - 0.27))[0]!
  expect(await share()).toBeCloseTo(0.8 ** 3, 9)
  await find(page, 'share')
  await page.keyboard.press('ArrowLeft')
  expect(await share()).toBeCloseTo(0.79 ** 3, 9)
})

test('a promise is broken by stepping a number down, and mended by stepping it up', async ({ page }) => {
  await find(page, 'petal fan speed')
  const promise = page.locator('[data-promise]')
  await expect(promise).toContainText('stays above 15px/s')
  const kept = (await promise.textContent())!
  await page.keyboard.press('Enter')
  await expect(page.locator('.cm-content:focus')).toHaveCount(1)
  await page.keyboard.press('Control+Home')
  for (let k = 0; k < 30; k++) await page.keyboard.press('Alt+ArrowDown')
  await expect(promise).not.toHaveText(kept)
  const broken = (await promise.textContent())!
  expect(broken).toMatch(/falls|below|down to|broken|reaches/i)
  for (let k = 0; k < 30; k++) await page.keyboard.press('Alt+ArrowUp')
  await expect(promise).toHaveText(kept)
  await page.keyboard.press('Escape')
})

test('single-key shortcuts are turned off and on again; everything is still reached by keys', async ({ page }) => {
  const search = page.getByRole('dialog', { name: 'Find anything' })
  await page.keyboard.press('?')
  const dialog = page.getByRole('dialog', { name: 'Keyboard shortcuts' })
  // The list shows the keys that work.
  await expect(dialog.getByRole('term').filter({ hasText: /^C$/ })).toBeVisible()
  await dialog.getByRole('checkbox', { name: 'Single-key shortcuts' }).press('Space')
  const term = (keys: RegExp) => dialog.getByRole('term').filter({ hasText: keys })
  await expect(term(/^C \(off\)$/)).toBeVisible()
  await expect(term(/^\/ \(off\) or Ctrl K$/)).toBeVisible()
  await expect(term(/^Space$/)).toBeVisible()
  await expect(term(/^\+ or =$/)).toBeAttached()
  await page.keyboard.press('Escape')
  await expect(dialog).toHaveCount(0)
  await page.keyboard.press('?')
  await expect(page.getByRole('button', { name: 'Find anything' })).toContainText('Ctrl K')
  await expect(dialog).toHaveCount(0)

  // The setting outlives a reload; letters, digits and punctuation do nothing now.
  await page.reload()
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible()
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  const [at, undo] = [page.locator('[data-time]'), page.getByRole('button', { name: 'Undo', exact: true }).first()]
  const before = (await at.textContent())!
  for (const key of ['0', ',', '.', 'Shift+.', '/', '?', 'c', 'p', '[', 'd', 'a']) await page.keyboard.press(key)
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(at).toHaveText(before)
  await expect(undo).toBeDisabled()
  // Labels show the keys that work.
  await expect(page.getByRole('button', { name: 'Find anything' })).toContainText('Ctrl K')

  // Commands run by name; then single keys are turned on again.
  await page.keyboard.press('ControlOrMeta+k')
  await expect(search.getByRole('combobox')).toBeFocused()
  await page.keyboard.type('mark the cue here')
  await page.keyboard.press('Enter')
  await expect(search).toHaveCount(0)
  await expect(undo).toBeEnabled()
  await page.keyboard.press('ControlOrMeta+k')
  await expect(search.getByRole('combobox')).toBeFocused()
  await page.keyboard.type('single-key')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Single-key shortcuts are on.')).toBeVisible()
  await page.keyboard.press('/')
  await expect(search.getByRole('combobox')).toBeFocused()
})
