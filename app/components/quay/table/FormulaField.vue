<script setup lang="ts">
/**
 * A formula, written. Every number is a handle; problems stand where they are; what is typed runs on Enter or
 * when the field is left, and until then the old formula goes on.
 */
import { EditorState, Prec, type StateEffect } from '@codemirror/state'
import { EditorView, keymap, placeholder, tooltips } from '@codemirror/view'
import { closeBrackets, closeCompletion, completionStatus, selectedCompletion } from '@codemirror/autocomplete'
import { standardKeymap } from '@codemirror/commands'
import { sourceOf } from '~~/core/acts/sources.ts'
import { bypassAt, bypassTerms, type BypassTerm } from '~~/core/formula/bypass.ts'
import { driveLabel } from '~~/core/formula/labels.ts'
import { change, type Fix, type Problem } from '~~/core/formula/problem.ts'
import { LONGEST_FORMULA } from '~~/core/piece/values.ts'
import { EASING_NAMES } from '~~/core/signal/easing.ts'
import { dropped, mayDrop } from '~/editor/carry.ts'
import { completion } from '~/editor/completion.ts'
import { dragNumbers, stepNumber, type Tuner } from '~/editor/drag.ts'
import { useEasings } from '~/editor/easings.ts'
import { looks, placeOfRing, setLook } from '~/editor/looks.ts'
import { draftOf, keepDraft } from '~/services/drafts.ts'
import { useSelection } from '~/stores/selection.ts'
import { usePiece } from '~/stores/piece.ts'
import { useTuning } from '~/commands/tuning.ts'

const props = defineProps<{ drive: string; label: string }>()
const emit = defineEmits<{ focus: []; problems: [list: readonly Problem[], draft: boolean]; open: [entry: string] }>()

const store = usePiece()
const tuning = useTuning()
const hand = useSelection()
const host = useTemplateRef('host')
let view: EditorView | null = null
let unlisten = () => {}

const kept = computed(() => (store.piece && sourceOf(store.piece, props.drive)?.text) ?? '')
const draft = () => view?.state.doc.toString() ?? ''
const dirty = () => draft() !== kept.value

/** The text of the drive in the field, with the caret where it was. */
function show(text: string): void {
  if (!view || draft() === text) return
  const old = draft()
  let from = 0
  while (from < Math.min(old.length, text.length) && old[from] === text[from]) from++
  let end = 0
  while (end < Math.min(old.length, text.length) - from && old[old.length - 1 - end] === text[text.length - 1 - end])
    end++
  const changes = { from, to: old.length - end, insert: text.slice(from, text.length - end) }
  // Its look comes with it: each step of the editor reads what is selected on the page.
  looked = true
  view.dispatch({ changes, effects: lookOf(text) })
  looked = false
}

/** Whether what is dispatched has its look already. */
let looked = false
function look(): void {
  view?.dispatch({ effects: lookOf(draft()) })
}

/** How a text looks, with what is wrong with it; nothing where there is no such formula any more. */
function lookOf(text: string): StateEffect<unknown>[] {
  if (!store.program?.meanings.all.has(props.drive)) return []
  const seen = store.program.meanings.look(text, props.drive)
  const drafted = text !== kept.value
  const problems = drafted ? seen.problems : store.program.slots.get(props.drive)!.problems
  emit('problems', problems, drafted)
  return [setLook.of({ checked: seen.checked, problems, rings: rings(text), press: ring })]
}

const easing = useEasings({ view: () => view, text: draft, kept: () => kept.value, rewrite })

/** Only the formula in hand has rings, and only where a press can do something. */
function rings(text: string): BypassTerm[] {
  if (hand.drive !== props.drive) return []
  return bypassTerms(text).filter(t => t.pressed !== null)
}
function ring(place: number): void {
  const term = rings(draft()).find(t => placeOfRing(t) === place)
  if (term) rewrite(term.pressed!)
}
function rewrite(text: string): void {
  tuning.commit(props.drive, text)
  show(kept.value)
  look()
}
/** What is selected of it is told on the scope. */
function select({ selection: { main } }: EditorState): void {
  hand.selected = main.empty ? null : { drive: props.drive, text: draft(), from: main.from, to: main.to }
}
function bypass(place: number): boolean {
  const text = bypassAt(draft(), place)
  if (text !== null) rewrite(text)
  return true
}

function commit(): void {
  // One that is too long for a document stays here, with what is wrong with it.
  if (!view || !dirty() || draft().length > LONGEST_FORMULA) return
  tuning.commit(props.drive, draft(), true)
  show(kept.value)
  look()
}

function dialOut(place: number): void {
  commit()
  tuning.dialOut(props.drive, place)
  show(kept.value)
  look()
}

function revert(): void {
  show(kept.value)
  look()
}

function accept(fix?: Fix): boolean {
  const seen = store.program!.meanings.look(draft(), props.drive).problems
  const chosen = fix ?? [...seen, ...store.program!.slots.get(props.drive)!.problems].flatMap(p => p.fixes)[0]
  if (!chosen) return false
  rewrite(change(draft(), chosen.changes))
  return true
}

/** A signal, curve, clock or cue is shown in the table when its name is pressed; an easing is offered by pictures. */
function opened(event: MouseEvent, at: EditorView): boolean {
  const pos = at.posAtCoords({ x: event.clientX, y: event.clientY })
  if (pos === null || !at.state.selection.main.empty) return false
  if (easing.offer(pos)) return true
  const word = at.state.wordAt(pos)
  const name = word ? at.state.sliceDoc(word.from, word.to) : ''
  const behind = word ? at.state.sliceDoc(word.to, word.to + 1) : ''
  const thing = store.program?.meanings.names.named(name)
  const place = thing && behind !== '(' && behind !== ':' ? OPENS[thing.type] : undefined
  if (place !== undefined) emit('open', place + thing!.id)
  return false
}
/** An entry that is dropped on the text is read there by its name. */
function written(e: DragEvent, at: EditorView): boolean {
  const key = dropped(e)
  if (key === null) return false
  const pos = at.posAtCoords({ x: e.clientX, y: e.clientY }, false)
  const insert = driveLabel(store.piece!, key)
  at.dispatch({ changes: { from: pos, insert }, selection: { anchor: pos + insert.length } })
  at.focus()
  return true
}
const OPENS: Partial<Record<string, string>> = { signal: '~', curve: 'curves/', clock: 'clocks/', cue: 'cues/' }

const tuner: Tuner = {
  begin: () => {
    commit()
    store.beginGesture()
  },
  tune: (nth, value, decimals) => tuning.number(props.drive, nth, value, decimals),
  end: () => store.endGesture(),
}

/** What is put in by others, as from the manual: there it runs on Enter, like what is typed. */
const writing = {
  drive: props.drive,
  insert: (text: string) => {
    view?.dispatch(view.state.replaceSelection(text))
    view?.focus()
  },
}

defineExpose({
  accept,
  dialOut: () => dialOut(view?.state.selection.main.head ?? 0),
  ease: () => easing.offer(null),
  focus: () => view?.focus(),
})

onMounted(() => {
  const step = (direction: 1 | -1, coarse: boolean) => () => stepNumber(view!, direction, coarse, tuner)
  const keys = [
    { key: 'Alt-Enter', run: () => accept() },
    {
      key: 'Enter',
      run: (v: EditorView) => {
        // Only an offer that was chosen is taken; else Enter lets the formula run.
        if (selectedCompletion(v.state)) return false
        closeCompletion(v)
        commit()
        return true
      },
    },
    {
      key: 'Escape',
      run: (v: EditorView) => {
        if (completionStatus(v.state)) return false
        if (dirty()) revert()
        else v.contentDOM.blur()
        return true
      },
    },
    { key: 'Alt-d', run: (v: EditorView) => (dialOut(v.state.selection.main.head), true) },
    { key: 'Alt-b', run: (v: EditorView) => bypass(v.state.selection.main.head) },
    { key: 'Alt-ArrowUp', run: step(1, false) },
    { key: 'Alt-ArrowDown', run: step(-1, false) },
    { key: 'Shift-Alt-ArrowUp', run: step(1, true) },
    { key: 'Shift-Alt-ArrowDown', run: step(-1, true) },
    { key: 'Mod-z', run: () => (dirty() ? revert() : store.undo(), true) },
    { key: 'Mod-Shift-z', run: () => (store.redo(), true) },
    { key: 'Mod-y', run: () => (store.redo(), true) },
  ]
  view = new EditorView({
    parent: host.value!,
    state: EditorState.create({
      doc: kept.value,
      extensions: [
        completion(() => {
          const meaning = store.program?.meanings.all.get(props.drive)
          return meaning ? { names: store.program!.meanings.names, target: meaning.target } : null
        }),
        Prec.high(keymap.of(keys)),
        keymap.of(standardKeymap.filter(k => k.key !== 'Enter')),
        closeBrackets(),
        EditorView.lineWrapping,
        tooltips({ position: 'fixed', parent: document.body }),
        placeholder('Write a formula'),
        looks,
        EditorView.domEventHandlers({ click: opened, dragover: e => mayDrop(e), drop: written }),
        EditorView.contentAttributes.of(() => ({
          'aria-label': props.label,
          spellcheck: 'false',
          autocapitalize: 'off',
        })),
        EditorView.updateListener.of(update => {
          if (update.docChanged) {
            if (!looked) look()
            keepDraft(store.id, props.drive, dirty() ? { of: kept.value, text: draft() } : null)
          }
          if (update.selectionSet || update.docChanged) select(update.state)
          if (update.focusChanged) {
            if (!update.view.hasFocus) {
              hand.selected = null
              return commit()
            }
            hand.writing = writing
            emit('focus')
          }
        }),
      ],
    }),
  })
  const typed = draftOf(store.id, props.drive, kept.value)
  if (typed !== null) show(typed)
  unlisten = dragNumbers(view, () => (store.piece ? tuner : null))
  look()
})

watch(() => hand.drive === props.drive, look)
// A renamed part's field is announced by its new name.
watch(
  () => props.label,
  () => view?.dispatch({}),
)

// What this formula's own text, other formulas, dials and parts make of it.
let shown = kept.value
watch(
  () => store.program,
  (is, was) => {
    // What is being typed stays, whatever else changes meanwhile.
    const other = kept.value !== shown && draft() !== kept.value
    if (other) show(kept.value)
    shown = kept.value
    if (other) return
    const same =
      is?.meanings.all.get(props.drive)?.text === was?.meanings.all.get(props.drive)?.text &&
      is?.slots.get(props.drive)?.problems.length === 0 &&
      was?.slots.get(props.drive)?.problems.length === 0
    if (!same) look()
  },
)

onBeforeUnmount(() => {
  unlisten()
  if (hand.writing === writing) hand.writing = null
  view?.destroy()
  view = null
})
</script>

<template>
  <div>
    <div ref="host" class="formula-field" />
    <LazyEasingChoice
      v-if="easing.chosen.value"
      :names="EASING_NAMES"
      :current="easing.chosen.value.current"
      :at="easing.chosen.value.at"
      @choose="easing.choose"
      @close="easing.chosen.value = null"
    />
  </div>
</template>
