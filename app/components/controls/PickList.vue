<script setup lang="ts">
/** Several of many, in the order in which they are pressed; each shows its place. */
defineProps<{ label: string; of: readonly { readonly id: string; readonly says: string }[] }>()
const picked = defineModel<readonly string[]>({ required: true })
const press = (id: string) =>
  (picked.value = picked.value.includes(id) ? picked.value.filter(p => p !== id) : [...picked.value, id])
</script>

<template>
  <ul class="overflow-y-auto border-y border-rule py-1" :aria-label="label">
    <li v-for="it in of" :key="it.id">
      <button
        class="flex w-full items-center gap-2 rounded-sm px-2 py-[2px] text-left hover:bg-band"
        :class="{ 'bg-band font-medium': picked.includes(it.id) }"
        type="button"
        :aria-pressed="picked.includes(it.id)"
        @click="press(it.id)"
      >
        <span class="tabular w-6 text-brass">{{ picked.includes(it.id) ? picked.indexOf(it.id) + 1 : '' }}</span>{{
          it.says
        }}
      </button>
    </li>
  </ul>
</template>
