/** The accessibility check of a page. */
import { AxeBuilder } from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect } from './fair.ts'

export interface Checked {
  /** What is new on the page, by a selector: what stands beside it was checked before. */
  readonly within?: string
  /** Only contrast: in another theme nothing else is different. */
  readonly colours?: boolean
}

/** Expects no serious finding; `what` names the page when there is one. */
export async function accessible(page: Page, what: string, { within, colours }: Checked = {}): Promise<void> {
  // Half way from one theme to another nothing has its colours yet.
  await page.waitForFunction(
    () => !document.getAnimations().some(a => a instanceof CSSTransition && a.playState === 'running'),
  )
  // Without a page of its own to sum up frames within frames, of which there are none.
  const axe = new AxeBuilder({ page }).setLegacyMode()
  if (within) axe.include(within)
  if (colours) axe.withRules(['color-contrast'])
  // The guards that keep the focus in a menu belong to the library.
  const { violations } = await axe.exclude('[data-headlessui-focus-guard]').analyze()
  const found = violations
    .filter(v => v.impact === 'serious' || v.impact === 'critical')
    .map(v => `${v.id}: ${v.nodes.map(n => n.target).join(' | ')}`)
  expect(found, what).toEqual([])
}
