<script setup lang="ts">
/** Sections side by side, each as high up as there is room: the first of them stand at the top, whatever their heights. */
const lanes = useTemplateRef('lanes')
/** Px between two sections of one lane. */
const GAP = 4
let sized: ResizeObserver | undefined
const watched = new Set<Element>()

/** A section takes as many rows of a pixel as it is high; the grid puts each where it fits first. */
function place(of: Iterable<Element>): void {
  for (const it of of)
    (it as HTMLElement).style.gridRowEnd = `span ${Math.ceil((it as HTMLElement).offsetHeight) + GAP}`
}
/** Places new sections at once. The observer places the others when their size changes, so that an update forces no layout. */
function watchAll(): void {
  sized ??= new ResizeObserver(entries => place(entries.map(e => e.target)))
  const now = new Set(lanes.value?.children)
  for (const it of watched) {
    if (now.has(it)) continue
    sized.unobserve(it)
    watched.delete(it)
  }
  const added = [...now].filter(it => !watched.has(it))
  for (const it of added) {
    sized.observe(it)
    watched.add(it)
  }
  place(added)
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
