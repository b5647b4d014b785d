<script setup lang="ts">
/**
 * Tooltips, once for the whole page: what an element says in `data-tip`, when the pointer rests on it or the keys come to
 * it. A shortcut in brackets at its end is shown as keys.
 */
import { useEventListener } from '@vueuse/core'
import { vFloat } from './floating.ts'

/** Milliseconds that the pointer rests before the first tooltip, and for which the next one comes at once. */
const [RESTS, FOLLOWS] = [450, 500]
/** Milliseconds for which what the keys come to shows its tooltip. */
const STAYS = 2500
const SHORTCUT = /^(.*?)\s*\(((?:(?:Ctrl|Shift|Alt) )*(?:[A-Z0-9?/]|F\d+|Space|Home|End|Del|Enter|Esc|Tab))\)$/s

const id = 'tip'
const shown = shallowRef<{ by: HTMLElement; says: string; keys: string[] } | null>(null)
let timer: ReturnType<typeof setTimeout> | undefined
/** What the pointer is on, so that a press does not bring its tooltip back. */
let over: HTMLElement | null = null
let last = -Infinity

const told = (e: Event) => (e.target as Element | null)?.closest?.<HTMLElement>('[data-tip]') ?? null

function show(by: HTMLElement): void {
  const text = by.dataset.tip ?? ''
  if (text === '' || !by.isConnected) return
  const [, says = text, keys = ''] = SHORTCUT.exec(text) ?? []
  hide()
  shown.value = { by, says, keys: keys.split(' ').filter(Boolean) }
  by.setAttribute('aria-describedby', id)
}
function hide(): void {
  clearTimeout(timer)
  if (!shown.value) return
  if (shown.value.by.getAttribute('aria-describedby') === id) shown.value.by.removeAttribute('aria-describedby')
  shown.value = null
  last = performance.now()
}
function point(e: PointerEvent): void {
  if (e.pointerType === 'touch') return
  const by = told(e)
  if (by === over) return
  over = by
  hide()
  if (by && e.buttons === 0)
    timer = setTimeout(() => show(by), performance.now() - last < FOLLOWS ? FOLLOWS / 5 : RESTS)
}
function focus(e: FocusEvent): void {
  const by = told(e)
  if (!by || by !== e.target || !by.matches(':focus-visible')) return
  show(by)
  timer = setTimeout(hide, STAYS)
}
useEventListener(document, 'pointerover', point, { passive: true })
useEventListener(document, 'focusin', focus)
useEventListener(document, ['focusout', 'pointerdown', 'keydown', 'wheel', 'scroll', 'visibilitychange'], hide, {
  capture: true,
  passive: true,
})
</script>

<template>
  <div
    v-if="shown"
    :id="id"
    :key="shown.says"
    v-float="{ by: shown.by, at: 'bottom' }"
    class="panel pointer-events-none max-w-[280px] px-2 py-1 text-[12px] leading-4 whitespace-pre-line text-ink"
    role="tooltip"
  >
    {{ shown.says
    }}<kbd
      v-for="k in shown.keys"
      :key="k"
      class="tabular ml-1 rounded-sm border border-rule bg-paper px-[5px] text-[11px] text-faded"
      >{{ k }}</kbd
    >
  </div>
</template>
