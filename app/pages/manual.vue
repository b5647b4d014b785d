<script setup lang="ts">
/** The manual: the formula language and the ways of working. */
import { GROUPS, SECTIONS } from '~~/core/manual/manual.ts'
import { WORKING } from '~~/core/manual/working.ts'
import { anchorOf } from '~~/core/manual/search.ts'
import type ManualSearch from '~/components/manual/ManualSearch.vue'

useHead({ title: 'Manual · Open Tide' })
provideExamples(() => [
  { says: 'Copy', title: 'Copy this formula', do: text => void navigator.clipboard.writeText(text) },
])
const contents = [
  ...SECTIONS.map(s => s.title),
  ...WORKING.map(s => s.title),
  'Units',
  'Words',
  ...GROUPS.map(([, t]) => t),
  'Easings',
  'Properties',
  'The rules, one by one',
]
const asking = useTemplateRef<InstanceType<typeof ManualSearch>>('asking')
</script>

<template>
  <div class="flex h-full flex-col">
    <header class="flex h-11 shrink-0 items-center gap-3 border-b border-rule bg-sheet px-4">
      <NuxtLink to="/" class="flex items-center gap-3 text-faded hover:text-ink"
        ><TideMark class="text-sea" />Harbour</NuxtLink
      >
      <span class="text-faded" aria-hidden="true">/</span>
      <h1 class="text-[15px] font-semibold">Manual</h1>
      <span class="ml-auto"><ThemeButton /></span>
    </header>
    <div class="flex min-h-0 flex-1">
      <nav class="w-64 shrink-0 overflow-y-auto border-r border-rule px-4 py-4" aria-label="Contents">
        <ManualSearch ref="asking" class="mb-3" />
        <template v-if="!asking?.asked">
          <a
            v-for="c in contents"
            :key="c"
            :href="`#${anchorOf(c)}`"
            class="block rounded-sm py-[3px] text-faded hover:text-ink"
            >{{ c }}</a
          >
        </template>
      </nav>
      <main class="min-w-0 flex-1 overflow-y-auto px-10 py-6" tabindex="0" aria-label="Manual">
        <ManualText />
      </main>
    </div>
  </div>
</template>
