/** Choosing from the page's own lists, as the hand does: opened, then pressed. */
import { expect, type Locator } from '@playwright/test'

/** @param what the value of a choice, its words, or its place in the list */
export async function pick(
  control: Locator,
  what: string | { readonly label: string } | { readonly index: number },
): Promise<void> {
  await control.click()
  const choices = control.page().locator('[role="listbox"]:popover-open [role="option"]')
  const one =
    typeof what === 'string'
      ? choices
          .and(control.page().locator(`[data-value="${what}"]`))
          .or(control.page().getByRole('option', { name: what, exact: true }))
          .first()
      : 'index' in what
        ? choices.nth(what.index)
        : choices.getByText(what.label, { exact: true })
  await one.click()
  await expect(choices).toHaveCount(0)
  // In the next frame the field that was chosen in takes the focus: a hand is never as fast as that.
  await control.page().evaluate(() => new Promise(requestAnimationFrame))
}
