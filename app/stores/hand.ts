/** What is in hand: the chosen part and copy, and the drive that the keys go to. */
import { defineStore } from 'pinia'
import type { DeskPage } from './desk.ts'

/** A formula that is written in, to which something may be added. */
export interface Writing {
  readonly drive: string
  /** Puts a text where the caret is, in place of what is selected. */
  readonly insert: (text: string) => void
}

export const useHand = defineStore('hand', () => {
  const part = ref<string | null>(null)
  const instance = ref(0)
  /** The entry in hand: `part.property`, `~signal`, or `clocks/id`, `cues/id`, `curves/id`. */
  const drive = ref<string | null>(null)
  /** The formula that was in hand last, also while something else is. */
  const formula = ref<string | null>(null)
  /** The page of the desk that is shown. */
  const desk = ref<DeskPage>('part')
  /** The part that is looked at alone, with all it carries. */
  const alone = ref<string | null>(null)
  /** A stretch of a formula that is selected in its text. */
  const selected = shallowRef<{ drive: string; text: string; from: number; to: number } | null>(null)
  /** The drive whose takes move side by side on the stage. */
  const beside = ref<string | null>(null)
  /** The formula that the caret was in last. */
  const writing = shallowRef<Writing | null>(null)

  function choose(id: string | null, copy = 0): void {
    part.value = id
    instance.value = copy
    if (drive.value && id !== null && !drive.value.startsWith(`${id}.`)) drive.value = null
  }

  function take(key: string | null): void {
    const id = key === null || /[~/]/.test(key) ? null : key.slice(0, key.indexOf('.'))
    if (id !== null && part.value !== id) choose(id)
    drive.value = key
    if (key !== null && !key.includes('/')) formula.value = key
  }

  return { part, instance, drive, formula, desk, alone, selected, beside, writing, choose, take }
})
