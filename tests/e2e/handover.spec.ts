/** Handing over: a link with a few dials within their locks, tried to be broken, and what comes back from it. */
import type { Page } from '@playwright/test'
import { accessible } from './accessible.ts'
import { drawn, expect, freshFair, goTo, halt, test } from './fair.ts'
import { apart } from './exporting.ts'
import { openPiece, stagePicture } from './on-stage.ts'
import { Builder } from '../../core/acts/build.ts'
import { addDial } from '../../core/acts/drives.ts'
import { setEye } from '../../core/acts/settings.ts'

const PHONE = { width: 390, height: 780 }
const dialog = (page: Page) => page.getByRole('dialog')

/** Hands the open piece over as it is offered, but for what `set` changes; gives the link. */
async function handedOver(page: Page, set: () => Promise<void> = async () => {}): Promise<string> {
  await page.getByRole('button', { name: 'Hand over', exact: true }).click()
  await set()
  await dialog(page).getByRole('button', { name: 'Create link' }).click()
  const field = dialog(page).getByLabel('The link')
  await expect(field).toHaveValue(/\/handover\/[A-Za-z0-9_-]{22}$/)
  return field.inputValue()
}
const slide = (page: Page, name: string) => page.getByRole('slider', { name, exact: true })

test('J3: a client turns one dial between its locks on a phone; it is kept under the link, and taken over by the maker', async ({
  page,
  browser,
}) => {
  const id = await freshFair(page)
  const link = await handedOver(page, async () => {
    await dialog(page).getByRole('checkbox', { name: 'wind' }).uncheck()
    await dialog(page).getByRole('checkbox', { name: 'dusk' }).uncheck()
    await dialog(page).getByLabel('Label of fairPace').fill('How fast the fair turns')
    await dialog(page).getByLabel('How fast the fair turns, lowest').fill('60')
    await dialog(page).getByLabel('How fast the fair turns, highest').fill('120')
    await dialog(page).getByLabel('How fast the fair turns, highest').press('Tab')
  })
  const before = await page.request.get(`/api/pieces/${id}`).then(r => r.json())

  const context = await browser.newContext({ viewport: PHONE, hasTouch: true, isMobile: true })
  const phone = await context.newPage()
  await phone.goto(link)
  await expect(phone.getByRole('button', { name: 'Pause', exact: true })).toBeVisible()
  await expect(phone.getByRole('slider')).toHaveCount(1)
  const pace = slide(phone, 'How fast the fair turns')
  await expect(pace).toHaveAttribute('min', '60')
  // Nothing is wider than the phone.
  expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBe(PHONE.width)
  await pace.fill('75')
  await expect(phone.getByText('75%').or(phone.getByText('75 %'))).toBeVisible()
  await expect(phone.getByRole('status')).toHaveText('')
  await accessible(phone, 'handed over')
  // It is there again, and the maker's piece is what it was.
  await phone.reload()
  await expect(slide(phone, 'How fast the fair turns')).toHaveValue('75')
  const after = await page.request.get(`/api/pieces/${id}`).then(r => r.json())
  expect(after).toEqual(before)

  // What may be taken away is made there.
  await phone.getByRole('button', { name: 'PNG', exact: true }).click()
  await expect(phone.getByRole('link', { name: 'Download' })).toBeVisible()

  await dialog(page).getByRole('button', { name: 'Close' }).click()
  await page.getByRole('button', { name: 'Hand over', exact: true }).click()
  const row = dialog(page).getByRole('listitem')
  await expect(row).toContainText('fairPace 75 %')
  await row.getByRole('button', { name: 'Apply to my piece' }).click()
  await dialog(page).getByRole('button', { name: 'Close' }).click()
  await expect(page.getByRole('textbox', { name: 'fairPace, value' })).toHaveValue('75')
  await page.keyboard.press('ControlOrMeta+z')
  await expect(page.getByRole('textbox', { name: 'fairPace, value' })).toHaveValue('100')

  await phone.getByRole('button', { name: 'Back to how it was' }).click()
  await expect(slide(phone, 'How fast the fair turns')).toHaveValue('100')
  await page.getByRole('button', { name: 'Hand over', exact: true }).click()
  await dialog(page).getByRole('listitem').getByRole('button', { name: 'Revoke' }).click()
  await expect(dialog(page).getByRole('listitem')).toContainText('revoked')
  await phone.reload()
  await expect(phone.getByRole('alert')).toContainText('This link doesn’t work')
  await context.close()
})

test('J3: the locks hold on the server: other dials, values beyond them, other pieces, tokens that are over or made up', async ({
  page,
}) => {
  const id = await freshFair(page)
  const { document, revision } = (await page.request.get(`/api/pieces/${id}`).then(r => r.json())) as {
    revision: number
    document: { dials: Record<string, { name: string }> }
  }
  const idOf = (name: string) => Object.entries(document.dials).find(([, d]) => d.name === name)![0]
  const [pace, wind] = [idOf('fairPace'), idOf('wind')]
  const lent = [{ dial: pace, says: 'Pace', low: 60, high: 120 }]
  const make = (more: object) =>
    page.request.post(`/api/pieces/${id}/handovers`, {
      data: { revision, lent, formats: ['png'], until: null, ...more },
    })
  const made = await make({})
  expect(made.status()).toBe(201)
  const { token } = (await made.json()) as { token: string }
  const put = (tuned: unknown, t = token) => page.request.put(`/api/handover/${t}`, { data: { tuned } })
  expect((await put({ [pace]: 60 })).status()).toBe(200)
  for (const wrong of [
    { [wind]: 10 },
    { [pace]: 59.999 },
    { [pace]: 121 },
    { [pace]: 1e300 },
    { [pace]: null },
    { [pace]: '80' },
    { nothing: 1 },
    [80],
    80,
  ]) {
    const answer = await put(wrong)
    expect([400, 422], JSON.stringify(wrong)).toContain(answer.status())
    expect(((await answer.json()) as { message: string }).message.length).toBeGreaterThan(10)
  }
  const now = (await page.request.get(`/api/handover/${token}`).then(r => r.json())) as {
    tuned: object
    lent: object[]
  }
  expect(now.tuned).toEqual({ [pace]: 60 })
  // It gives no more than it says: no id of the piece, no other dials to turn.
  expect(Object.keys(now).sort()).toEqual(['document', 'formats', 'lent', 'tuned'])
  expect(now.lent).toHaveLength(1)

  // Locks that are wider than the dial, the wrong way round, doubled, or of nothing are not made.
  for (const wrong of [
    [{ ...lent[0], low: -1 }],
    [{ ...lent[0], high: 999 }],
    [{ ...lent[0], low: 120, high: 60 }],
    [lent[0], lent[0]],
    [{ ...lent[0], dial: 'gone' }],
    [{ ...lent[0], says: ' ' }],
  ])
    expect([400, 422]).toContain((await make({ lent: wrong })).status())
  expect((await make({ formats: ['exe'] })).status()).toBe(400)

  // What is over does not open, nor what was never made.
  const over = (await (await make({ until: '2020-01-01T00:00:00.000Z' })).json()) as { token: string }
  expect((await page.request.get(`/api/handover/${over.token}`)).status()).toBe(404)
  expect((await put({ [pace]: 80 }, over.token)).status()).toBe(404)
  for (const odd of ['', 'x', '..%2f..%2fapi%2fpieces', `${token}A`, token.slice(1), '%00', 'a'.repeat(4000)])
    expect([404, 405, 414, 431]).toContain((await page.request.get(`/api/handover/${odd}`)).status())
  // A picture that is not of the piece is not shown by it.
  expect((await page.request.get(`/api/handover/${token}/assets/${'0'.repeat(32)}`)).status()).toBe(404)
  await page.request.delete(`/api/pieces/${id}`)
  expect((await page.request.get(`/api/handover/${token}`)).status()).toBe(404)
})

test('J3: a client’s page with one dial, locked to ±60°: by slide, by keys and by asking the server it goes no further', async ({
  page,
}) => {
  const b = new Builder('Signboard', 4)
  const dial = addDial(b.piece, { name: 'lean', unit: 'deg', low: -180, high: 180, value: 0, initial: 0 })
  b.do(dial.op)
  b.do(addDial(b.piece, { name: 'secret' }).op)
  const board = b.part('Board', { type: 'rectangle' }, {}, { width: 400, height: 200 })
  b.drive(board, 'rotation', 'lean')
  await openPiece(page, b.piece)
  const link = await handedOver(page, async () => {
    await dialog(page).getByRole('checkbox', { name: 'secret' }).uncheck()
    for (const [end, value] of [
      ['lowest', '-60'],
      ['highest', '60'],
    ] as const) {
      await dialog(page).getByLabel(`lean, ${end}`).fill(value)
      await dialog(page).getByLabel(`lean, ${end}`).press('Tab')
    }
  })
  await page.setViewportSize(PHONE)
  await page.goto(link)
  await expect(page.getByRole('slider')).toHaveCount(1)
  const lean = slide(page, 'lean')
  await lean.focus()
  const turned = () =>
    page.evaluate(() =>
      (window.openTide as unknown as { values(p: string, s: number): number[] }).values('Board.rotation', 0),
    )
  for (const [key, degrees] of [
    ['End', 60],
    ['Home', -60],
  ] as const) {
    await page.keyboard.press(key)
    for (let k = 0; k < 5; k++) await page.keyboard.press(key === 'End' ? 'ArrowRight' : 'ArrowLeft')
    await expect(lean).toHaveValue(String(degrees))
    expect((await turned())[0]).toBeCloseTo(degrees / 360, 12)
  }
  const token = link.split('/').at(-1)!
  for (const [value, status] of [
    [60, 200],
    [60.001, 422],
    [-61, 422],
  ] as const)
    expect((await page.request.put(`/api/handover/${token}`, { data: { tuned: { [dial.id]: value } } })).status()).toBe(
      status,
    )
})

for (const deep of [false, true])
  test(`a hand-over shows the stage to the pixel, ${deep ? 'in depth' : 'flat'}`, async ({ page }) => {
    const b = new Builder('Handed', 4)
    if (deep) b.do(setEye(b.piece, 1200))
    const made = addDial(b.piece, { name: 'pace' })
    b.do(made.op)
    const star = b.part('Star', { type: 'star', points: 7 }, {}, { radius: 220, innerRadius: 90, thickness: 50 })
    b.drive(star, 'rotation', 'time * 31deg/s')
    b.drive(star, 'rotationY', deep ? 'sine(every: 5s, amp: 50deg)' : '0deg')
    await openPiece(page, b.piece)
    await goTo(page, '1.7')
    await page.getByRole('tab', { name: 'Piece' }).click()
    const stage = await stagePicture(page)
    const width = (await page.locator('[data-stage]').boundingBox())!.width
    const link = await handedOver(page)
    await page.setViewportSize({ width, height: 800 })
    await page.goto(link)
    await page.getByRole('button', { name: 'Pause', exact: true }).click()
    await page.evaluate(() => (window.openTide as unknown as { seek: (s: number) => void }).seek(1.7))
    await drawn(page)
    const there = await stagePicture(page)
    expect(await apart(page, stage, there)).toMatchObject({ most: 0, count: 0, width })
    await halt(page)
  })
