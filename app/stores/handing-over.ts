/** Handing a piece over, and what comes back: links are made and withdrawn, what was tuned under them is taken over. */
import { defineStore } from 'pinia'
import { setDial } from '~~/core/engine/retime.ts'
import { Program } from '~~/core/engine/program.ts'
import * as v from 'valibot'
import { Handover, Link } from '~~/core/piece/api.ts'
import type { DialLoan } from '~~/core/piece/lent.ts'
import { apply, compose, operation } from '~~/core/piece/operation.ts'
import { printNumber } from '~~/core/units/units.ts'
import { useOpenPiece } from './open-piece.ts'
import { useSmoothing } from '../commands/smoothing.ts'
import { create, get, remove } from '../services/request.ts'

export const useHandingOver = defineStore('handing-over', () => {
  const store = useOpenPiece()
  const smoothing = useSmoothing()
  const all = shallowRef<Handover[]>([])
  const link = ref('')
  const copied = ref(false)
  const wrong = ref('')
  const busy = ref(false)
  const path = () => `/api/pieces/${store.id}/handovers`

  async function load(): Promise<void> {
    const answer = await get(path(), v.array(Handover))
    if (answer.ok) all.value = answer.value
    else wrong.value = answer.says
  }

  async function make(wanted: { lent: DialLoan[]; formats: string[]; until: string | null }): Promise<void> {
    busy.value = true
    wrong.value = ''
    forget()
    // What is handed over is what is saved.
    const saved = await store.flush()
    const answer = saved ? await create(path(), Link, { ...wanted, revision: store.revision() }) : null
    busy.value = false
    if (!answer) wrong.value = 'The piece isn’t saved yet, so no link was created. Try again once it is saved.'
    else if (!answer.ok) wrong.value = answer.says
    else link.value = `${location.origin}/handover/${answer.value.token}`
    await load()
  }

  async function copy(): Promise<void> {
    copied.value = await navigator.clipboard.writeText(link.value).then(
      () => true,
      () => false,
    )
  }

  /** A link is told once. */
  function forget(): void {
    link.value = ''
    copied.value = false
  }

  async function withdraw({ id }: Handover): Promise<void> {
    const answer = await remove(`${path()}/${id}`)
    if (!answer.ok) wrong.value = answer.says
    await load()
  }

  /** What was tuned of dials that are still there: `fairPace 65 %`. */
  const said = ({ tuned }: Handover): string =>
    Object.entries(tuned)
      .flatMap(([id, value]) => {
        const dial = store.piece.dials[id]
        return dial ? [`${dial.name} ${printNumber(value, 3)}${dial.unit === '' ? '' : ` ${dial.unit}`}`] : []
      })
      .join(', ')

  /** The dials of the piece go where the receiver left them: one step, without a jump while it plays. */
  function takeOver({ tuned }: Handover): void {
    let program = store.program
    let op = operation('apply shared changes')
    for (const [id, value] of Object.entries(tuned)) {
      const dial = program.piece.dials[id]
      if (!dial || dial.locked || dial.value === value) continue
      const next = setDial(
        program,
        id,
        Math.min(dial.high, Math.max(dial.low, value)),
        store.player.now(),
        store.noJump(),
      )
      op = { ...compose(op, next), undoLabel: op.undoLabel }
      program = new Program(apply(program.piece, next), program)
    }
    if (op.puts.length > 0) smoothing.told(op, 'Your dials now have the shared values.', program)
    else store.say('No change: the dials already have these values.')
  }

  return { all, link, copied, wrong, busy, load, make, copy, forget, withdraw, said, takeOver }
})
