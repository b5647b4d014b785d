/** What is in hand: the chosen part and copy, and the drive that the keys go to. */
import { drivenPart } from '~~/core/piece/drive-key.ts'
import { defineStore } from 'pinia'
import type { DeskPage } from './desk.ts'

/** A formula that is written in, to which something may be added. */
export interface Writing {
  readonly drive: string
  /** Puts a text where the caret is, in place of what is selected. */
  readonly insert: (text: string) => void
}

export const useSelection = defineStore('hand', () => {
  const part = ref<string | null>(null)
  const instance = ref(0)
  /** Parts that are chosen besides the one. */
  const others = shallowRef<readonly string[]>([])
  /** The dialog of the piece that is open. */
  const dialog = ref<'export' | 'hand over' | 'versions' | 'table' | 'keys' | null>(null)
  /** Whether the manual stands beside the piece. */
  const manual = ref(false)
  /** Whether the patterns are open. */
  const patterns = ref(false)
  /** All parts that are chosen, the one in hand first. */
  const chosen = computed(() => (part.value === null ? [] : [part.value, ...others.value]))
  /** The entry in hand: `part.property`, `~signal`, or `clocks/id`, `cues/id`, `curves/id`. */
  const drive = ref<string | null>(null)
  /** The formula that was in hand last, also while something else is. */
  const formula = ref<string | null>(null)
  /** The page of the desk that is shown. */
  const desk = ref<DeskPage>('part')
  /** The part that is shown solo, with its children. */
  const solo = ref<string | null>(null)
  /** Whether the way of the part in hand through the coming lap is drawn on the stage. */
  const path = ref(true)
  /** Whether threads go from it to what it reads and to what reads it. */
  const threads = ref(true)
  /** Whether the pen draws on the stage, and which pose of the path in hand its points are of. */
  const pen = ref(false)
  const pose = ref(0)
  /** A stretch of a formula that is selected in its text. */
  const selected = shallowRef<{ drive: string; text: string; from: number; to: number } | null>(null)
  /** The drive whose takes move side by side on the stage. */
  const beside = ref<string | null>(null)
  /** The formula that the caret was in last. */
  const writing = shallowRef<Writing | null>(null)

  function choose(id: string | null, copy = 0): void {
    part.value = id
    instance.value = copy
    pose.value = 0
    others.value = []
    if (drive.value && id !== null && !drive.value.startsWith(`${id}.`)) drive.value = null
  }

  /** One more, or one that was among them less. */
  function chooseToo(id: string, copy = 0): void {
    const now = chosen.value
    const next = now.includes(id) ? now.filter(c => c !== id) : [id, ...now]
    chooseAll(next, next[0] === id ? copy : 0)
  }

  function chooseAll(ids: readonly string[], copy = 0): void {
    choose(ids[0] ?? null, copy)
    others.value = ids.slice(1)
  }

  function take(key: string | null): void {
    const id = key === null || /[~/]/.test(key) ? null : drivenPart(key)
    if (id !== null && part.value !== id) choose(id)
    drive.value = key
    if (key !== null && !key.includes('/')) formula.value = key
  }

  return {
    part,
    instance,
    drive,
    formula,
    desk,
    solo,
    path,
    threads,
    pen,
    pose,
    selected,
    beside,
    writing,
    others,
    chosen,
    patterns,
    dialog,
    manual,
    choose,
    chooseToo,
    chooseAll,
    take,
  }
})
