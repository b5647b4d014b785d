/** What was handed over, in its receiver's hand: the running piece, its dials, and what of them is kept under the link. */
import { Received } from '~~/core/piece/api.ts'
import { withTuned } from '~~/core/piece/handing.ts'
import type { Runner } from '~/running/runner.ts'
import { get, put } from './request.ts'

/** Milliseconds after the last turn until it is kept. */
const PATIENCE = 400

export function useReceiving(token: string) {
  const path = `/api/handover/${token}`
  const received = shallowRef<Received | null>(null)
  const trouble = ref('')
  /** Values of the lent dials as they are now. */
  const values = ref<Record<string, number>>({})
  const keeping = ref<'kept' | 'keeping' | 'failed'>('kept')
  let runner: Runner | null = null
  let timer = 0

  async function load(): Promise<void> {
    const answer = await get(path, Received)
    if (!answer.ok) {
      trouble.value = answer.says
      return
    }
    received.value = answer.value
    const { dials } = withTuned(received.value.document, received.value.tuned)
    values.value = Object.fromEntries(received.value.lent.map(l => [l.dial, dials[l.dial]!.value]))
  }

  const asTuned = () => withTuned(received.value!.document, received.value!.tuned)
  const take = (made: Runner) => (runner = made)

  function turn(dial: string, value: number): void {
    if (!runner) return
    values.value = { ...values.value, [dial]: runner.turn(dial, value) }
    keepSoon()
  }

  /** Everything as it was handed over. */
  function back(): void {
    if (!runner) return
    const { document, lent } = received.value!
    runner.run(document)
    values.value = Object.fromEntries(lent.map(l => [l.dial, document.dials[l.dial]!.value]))
    keepSoon()
  }

  function keepSoon(): void {
    keeping.value = 'keeping'
    clearTimeout(timer)
    timer = window.setTimeout(keep, PATIENCE)
  }

  async function keep(): Promise<void> {
    clearTimeout(timer)
    const { document } = received.value!
    const tuned = Object.fromEntries(
      Object.entries(values.value).filter(([dial, value]) => document.dials[dial]!.value !== value),
    )
    const answer = await put(path, { tuned })
    keeping.value = answer.ok ? 'kept' : 'failed'
    trouble.value = answer.ok ? '' : answer.says
  }

  return { received, trouble, values, keeping, load, asTuned, take, turn, back, keep }
}
