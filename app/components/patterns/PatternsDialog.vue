<script setup lang="ts">
/** Patterns beside the open piece: one is chosen and put on the chosen parts, or theirs is saved as one. */
import { missing, rolesOf } from '~~/core/acts/patterns.ts'
import type { Pattern } from '~~/core/piece/api.ts'
import { partsListed } from '~~/core/acts/parenting.ts'
import { useSelection } from '~/stores/selection.ts'
import { usePatterns } from '~/stores/patterns.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const emit = defineEmits<{ close: [] }>()
const store = useOpenPiece()
const hand = useSelection()
const patterns = usePatterns()
onMounted(patterns.load)

const search = ref('')
const listed = computed(() =>
  patterns.all.filter(p => p.document.title.toLowerCase().includes(search.value.trim().toLowerCase())),
)
const picked = shallowRef<Pattern | null>(null)
const pointed = ref('')
const roles = computed(() => (picked.value ? rolesOf(picked.value.document) : []))
const chosen = computed(() => hand.chosen.filter(id => store.piece.parts[id]))
const parts = computed(() => partsListed(store.piece).map(({ id }) => ({ id, name: store.piece.parts[id]!.name })))
/** For each role the part in its place: those that are chosen, in order. */
const places = ref<Record<string, string>>({})
watch(picked, () => {
  places.value = Object.fromEntries(roles.value.map((r, k) => [r.id, chosen.value[k] ?? '']))
})
const each = computed(() => roles.value.length === 1 && chosen.value.length > 1)
const ready = computed(() => (each.value ? true : roles.value.length > 0 && roles.value.every(r => places.value[r.id])))
/** What a part cannot be given. */
const notGiven = computed(() =>
  roles.value.flatMap(r =>
    (each.value ? chosen.value : [places.value[r.id] ?? '']).flatMap(id => {
      const part = store.piece.parts[id]
      const gone = part ? missing(part, r) : []
      return gone.length > 0 ? [`${part!.name} has no ${gone.join(' and no ')}.`] : []
    }),
  ),
)
function put(): void {
  const { document } = picked.value!
  if (each.value) patterns.putOn(document, chosen.value)
  else patterns.put(document, new Map(Object.entries(places.value)))
  emit('close')
}

const title = ref('')
const driven = computed(() => chosen.value.filter(id => Object.values(store.piece.drives).some(d => d.part === id)))
const saved = ref('')
async function save(): Promise<void> {
  const name = title.value.trim()
  saved.value = (await patterns.save(driven.value, name)) ? name : ''
  if (saved.value) title.value = ''
}
</script>

<template>
  <DialogFrame title="Patterns" :wide="900" :high="600" @close="emit('close')">
    <template #head
      ><input
        v-model="search"
        class="field ml-auto w-52"
        type="search"
        placeholder="Find a pattern"
        aria-label="Find a pattern"
    /></template>
    <div class="grid min-h-0 flex-1 grid-cols-[1fr_300px]">
      <ul
        class="grid content-start grid-cols-3 gap-3 overflow-y-auto border-r border-rule p-4"
        aria-label="All patterns"
      >
        <li v-for="p in listed" :key="p.id">
          <button
            class="block w-full overflow-hidden rounded-md border bg-sheet text-left"
            :class="picked?.id === p.id ? 'border-sea ring-1 ring-sea' : 'border-rule hover:border-faded'"
            type="button"
            :aria-pressed="picked?.id === p.id"
            @click="picked = p"
            @mouseenter="pointed = p.id"
            @mouseleave="pointed = ''"
            @focus="pointed = p.id"
            @blur="pointed = ''"
          >
            <MovingStill :piece="p.document" :moving="pointed === p.id" />
            <span class="block truncate border-t border-rule px-2 py-1">{{ p.document.title }}</span>
          </button>
        </li>
        <li v-if="listed.length === 0" class="col-span-3 text-faded">No results.</li>
      </ul>
      <div class="flex min-h-0 flex-col gap-3 overflow-y-auto p-4">
        <template v-if="picked">
          <h3 class="font-semibold">{{ picked.document.title }}</h3>
          <p v-if="each" class="text-faded">
            On each of the {{ chosen.length }} chosen parts:
            {{ chosen.map(id => store.piece.parts[id]!.name).join(', ') }}.
          </p>
          <template v-else>
            <label v-for="role in roles" :key="role.id" class="block">
              <span class="block text-faded"
                >{{ role.name }}{{ role.driven.length > 0 ? `: ${role.driven.join(', ')}` : ', only read' }}</span
              >
              <ComboBox
                :model-value="places[role.id] ?? ''"
                class="w-full"
                :label="`Instead of ${role.name}`"
                placeholder="choose a part"
                :of="parts.map(p => ({ value: p.id, says: p.name }))"
                @update:model-value="places[role.id] = $event"
              />
            </label>
          </template>
          <p v-for="says in notGiven" :key="says" class="text-coral">{{ says }}</p>
          <button class="button button-strong self-start" type="button" :disabled="!ready" @click="put">Apply</button>
        </template>
        <p v-else class="text-faded">Choose a pattern to apply to the selected parts, as one step.</p>
        <form class="mt-auto border-t border-rule pt-3" @submit.prevent="save">
          <h3 class="mb-1 font-semibold">Save as a pattern</h3>
          <p class="mb-2 text-faded">
            {{
              driven.length === 0
                ? 'Select driven parts: their formulas are saved with everything they need.'
                : `The formulas of ${driven.map(id => store.piece.parts[id]!.name).join(', ')}, with everything they need.`
            }}
          </p>
          <div class="flex gap-2">
            <input
              v-model="title"
              class="field min-w-0 flex-1"
              maxlength="60"
              aria-label="Name of the pattern"
              :disabled="driven.length === 0"
            />
            <button class="button" type="submit" :disabled="driven.length === 0 || title.trim() === ''">Save</button>
          </div>
          <p v-if="saved" class="mt-2 text-kelp" role="status">{{ saved }} is saved as a pattern.</p>
        </form>
        <p v-if="patterns.wrong" class="text-coral" role="alert">{{ patterns.wrong }}</p>
      </div>
    </div>
    <template #foot>
      <button class="button" type="button" @click="emit('close')">Close</button>
    </template>
  </DialogFrame>
</template>
