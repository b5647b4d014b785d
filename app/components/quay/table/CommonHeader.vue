<script setup lang="ts">
/** The head of what is in common: signals, cues, clocks and curves, and how another is made. */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { COMMON, useCommon } from '~/commands/common.ts'
import { useSelection } from '~/stores/selection.ts'

defineProps<{ count: number }>()
const common = useCommon()
const hand = useSelection()
</script>

<template>
  <div class="mb-[5px] flex h-[21px] items-baseline gap-2 px-1" data-head="common">
    <RollButton :part="null" name="In common" :count="count" />
    <span class="truncate text-faded">signals, cues, clocks, curves</span>
    <Menu as="div" class="relative ml-auto">
      <MenuButton class="link">New…</MenuButton>
      <MenuItems class="panel absolute right-0 z-30 mt-1 w-72 py-1 focus:outline-none">
        <MenuItem v-for="(says, kind) in COMMON" :key="kind" v-slot="{ active }">
          <button class="menu-row" :class="{ 'bg-band': active }" type="button" @click="common.make(kind)">
            <span class="w-12 font-medium">{{ kind }}</span><span class="text-[12px] text-faded">{{ says }}</span>
          </button>
        </MenuItem>
        <MenuItem v-slot="{ active }">
          <button class="menu-row" :class="{ 'bg-band': active }" type="button" @click="hand.dialog = 'table'">
            <span class="w-12 font-medium">from…</span
            ><span class="text-[12px] text-faded">A curve or a cue from a CSV or JSON file</span>
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
    <LazyTableDialog v-if="hand.dialog === 'table'" @close="hand.dialog = null" />
  </div>
</template>
