<script setup lang="ts">
/** Sections side by side, each as high up as there is room: the first of them stand at the top, whatever their heights. */
const lanes = useTemplateRef('lanes')
/** Px between two sections of one lane. */
const GAP = 4
let sized: ResizeObserver | undefined

/** A section takes as many rows of a pixel as it is high; the grid puts each where it fits first. */
function place(of: Iterable<Element>): void {
  for (const it of of)
    (it as HTMLElement).style.gridRowEnd = `span ${Math.ceil((it as HTMLElement).offsetHeight) + GAP}`
}
function watchAll(): void {
  sized ??= new ResizeObserver(entries => place(entries.map(e => e.target)))
  sized.disconnect()
  for (const it of lanes.value?.children ?? []) sized.observe(it)
  place(lanes.value?.children ?? [])
}
onMounted(watchAll)
onUpdated(watchAll)
onBeforeUnmount(() => sized?.disconnect())
</script>

<template>
  <div
    ref="lanes"
    class="compact grid grid-flow-row-dense auto-rows-[1px] grid-cols-[repeat(auto-fill,minmax(208px,1fr))] items-start gap-x-6"
  >
    <slot />
  </div>
</template>
