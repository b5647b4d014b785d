/** What is done in an open piece by whatever browser it runs in, and what came of it: sent to `/done` when it is over. */

export interface Used {
  readonly engine: string
  readonly steps: [what: string, came: string][]
  readonly failed?: string
}
declare global {
  interface Window {
    openTide: { values: (key: string, seconds: number) => number[]; now: () => number; settled: () => Promise<void> }
  }
}

const PATIENCE = 60_000
const wait = (ms: number) => new Promise(done => setTimeout(done, ms))

/** What comes of looking, as soon as it is there. */
async function until<T>(what: string, look: () => T | null | undefined | false, patience = PATIENCE): Promise<T> {
  const began = performance.now()
  for (;;) {
    const found = look()
    if (found) return found
    if (performance.now() - began > patience) throw new Error(`${what}: not there after ${patience / 1000} s`)
    await wait(50)
  }
}
const named = (name: string | RegExp, within: ParentNode = document) =>
  [...within.querySelectorAll<HTMLElement>('button, [role="radio"], [role="dialog"] *, a')].find(e => {
    const says = (e.getAttribute('aria-label') ?? e.textContent).trim()
    return typeof name === 'string' ? says === name : name.test(says)
  })
const dialog = () => document.querySelector<HTMLElement>('[role="dialog"]')

function pointer(at: EventTarget, type: string, clientX: number, clientY: number, buttons: number): void {
  at.dispatchEvent(
    new PointerEvent(type, { clientX, clientY, buttons, button: 0, pointerId: 1, bubbles: true, cancelable: true }),
  )
}

async function use(steps: Used['steps']): Promise<void> {
  const entry = await until('the entry', () =>
    document.querySelector<HTMLElement>('article[aria-label="Carousel rotation"]'),
  )
  const stage = document.querySelector<HTMLCanvasElement>('[data-stage]')!
  const drawn = document.querySelector('[data-no-card]') ? 'as a drawing' : 'by its graphics card'
  steps.push(['open', `the stage is drawn ${drawn}, ${stage.width} px wide`])

  if (named('Play')) named('Play')!.click()
  // What opening left to do is over.
  await wait(2000)
  const [began, clock] = [window.openTide.now(), performance.now()]
  await wait(4000)
  const [went, took] = [window.openTide.now() - began, (performance.now() - clock) / 1000]
  if (Math.abs(went - took) > 0.5)
    throw new Error(
      `play: ${went} s went by in ${took} s (${named('Play') ? 'at rest' : 'playing'}, ${document.visibilityState})`,
    )
  steps.push(['play', `${went.toFixed(2)} s in ${took.toFixed(2)} s`])

  const text = () => entry.querySelector<HTMLElement>('.cm-content')?.innerText ?? entry.innerText
  const before = text()
  const handle = await until('a number to drag', () => entry.querySelector<HTMLElement>('[data-handle]'))
  const { x, y, width, height } = handle.getBoundingClientRect()
  const [cx, cy] = [x + width / 2, y + height / 2]
  pointer(handle, 'pointerdown', cx, cy, 1)
  for (let k = 1; k <= 10; k++) {
    pointer(window, 'pointermove', cx + 4 * k, cy, 1)
    await wait(30)
  }
  pointer(window, 'pointerup', cx + 40, cy, 0)
  await until('the number changes', () => text() !== before, 5000)
  steps.push(['drag', `${before.trim().split('\n')[0]} → ${text().trim().split('\n')[0]}`])

  const saving = () => document.querySelector('[data-saving]')?.textContent.trim()
  await until('saved', () => saving() === 'saved just now', 20_000).catch((e: Error) => {
    throw new Error(`${e.message}: it says “${saving()}”`)
  })
  steps.push(['save', saving()!])

  named('Export')!.click()
  await until('the dialog', dialog)
  const half = await until('half the size', () => named('0.5 times the stage', dialog()!))
  half.click()
  for (const as of ['WebM', 'GIF']) {
    named(as, dialog()!)!.click()
    await wait(200)
    ;[...dialog()!.querySelectorAll('button')]
      .filter(b => b.textContent.trim() === 'Export')
      .at(-1)!
      .click()
    const came = await until(
      `a film as ${as}`,
      () => {
        const wrong = dialog()!.querySelector('[role="alert"]')?.textContent.trim()
        const ready = /\S.* is ready, [\d.]+ [kMG]B/.exec(dialog()!.innerText)?.[0]
        return ready ?? wrong
      },
      240_000,
    )
    steps.push([`export ${as}`, came])
    if (came.includes('is ready')) return
  }
  throw new Error('no film was made')
}

const steps: Used['steps'] = []
const tell = (failed?: string) =>
  fetch('/done', {
    method: 'POST',
    body: JSON.stringify({
      engine: navigator.userAgent,
      steps,
      ...(failed !== undefined && { failed }),
    } satisfies Used),
  })
use(steps).then(
  () => tell(),
  (e: unknown) => tell(String(e)),
)
