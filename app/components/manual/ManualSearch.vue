<script setup lang="ts">
/** Finds a place in the manual that is shown below or beside it, and goes there. */
import { Search } from '@lucide/vue'
import { search } from '~~/core/manual/search.ts'

const question = ref('')
const found = computed(() => search(question.value))
defineExpose({ asked: computed(() => question.value.trim() !== '') })

function go(anchor: string): void {
  const place = document.getElementById(anchor)
  if (!place) return
  place.scrollIntoView({ block: 'start' })
  place.tabIndex = -1
  place.focus({ preventScroll: true })
}
</script>

<template>
  <div role="search" aria-label="Search the manual">
    <label class="relative block">
      <Search :size="14" class="absolute top-[7px] left-2 text-faded" aria-hidden="true" />
      <input
        v-model="question"
        class="field w-full !pl-7"
        type="search"
        placeholder="Search the manual"
        aria-label="Search the manual"
        @keydown.enter="found[0] && go(found[0].anchor)"
        @keydown.esc.stop="question = ''"
      />
    </label>
    <ul v-if="question.trim()" class="mt-2" aria-label="Found">
      <li v-for="(f, i) in found" :key="i">
        <button class="w-full rounded-sm px-1 py-[3px] text-left hover:bg-band" type="button" @click="go(f.anchor)">
          <span class="tabular block truncate">{{ f.title }}</span>
          <span class="block truncate text-[12px] text-faded">{{ f.says }}</span>
        </button>
      </li>
      <li v-if="found.length === 0" class="px-1 py-1 text-faded">No results.</li>
    </ul>
  </div>
</template>
