<script setup lang="ts">
/** A table from a file becomes a curve or the marks of a cue: which columns, in what units, how finely. */
import { apply } from '~~/core/piece/operation.ts'
import { readPiece } from '~~/core/piece/migrate.ts'
import { tableOf, type Table } from '~~/core/formats/tables/table.ts'
import { cueOf, curveOf, TIME_UNITS, type TimeUnit } from '~~/core/formats/tables/import-table.ts'
import type { Curve } from '~~/core/piece/schema.ts'
import { useListing } from '~/stores/listing.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { plainChoices } from '~/components/controls/choices.ts'

const emit = defineEmits<{ close: [] }>()
const store = useOpenPiece()
const listing = useListing()
const table = shallowRef<Table | null>(null)
const says = ref('')
const name = ref('')
const as = ref<'curve' | 'cue'>('curve')
const time = ref('')
const timeUnit = ref<TimeUnit>('s')
const channels = ref<string[]>([])
const unit = ref<Curve['unit']>('')
const within = ref(0.01)
const WAYS = [
  { says: 'a curve', value: 'curve' },
  { says: 'marks of a cue', value: 'cue' },
] as const
const UNITS: readonly Curve['unit'][] = ['', '%', 'deg', 'px', 's', 'Hz']

async function read(e: Event): Promise<void> {
  const [file] = (e.target as HTMLInputElement).files ?? []
  if (!file) return
  const read = tableOf(await file.text(), file.name)
  table.value = 'says' in read ? null : read
  says.value = 'says' in read ? `${file.name} couldn’t be read. ${read.says}` : ''
  if ('says' in read) return
  name.value = file.name.replace(/\.[A-Za-z0-9]+$/, '')
  const named = read.columns.find(c => /^(time|t|seconds?|ms|frames?)$/i.test(c.name))
  time.value = named?.name ?? (read.columns.length > 1 ? '' : read.columns[0]!.name)
  if (named) timeUnit.value = /^ms/i.test(named.name) ? 'ms' : /^frame/i.test(named.name) ? 'frames' : 's'
  channels.value = read.columns
    .filter(c => c.name !== time.value && !/^frames?$/i.test(c.name))
    .slice(0, 16)
    .map(c => c.name)
  as.value = channels.value.length === 0 ? 'cue' : 'curve'
}

function take(): void {
  const piece = store.piece
  const by = { name: name.value, time: time.value === '' ? null : time.value, timeUnit: timeUnit.value }
  const made =
    as.value === 'cue'
      ? cueOf(piece, table.value!, by)
      : curveOf(piece, table.value!, {
          ...by,
          channels: channels.value,
          unit: unit.value,
          within: Math.max(0, within.value || 0),
        })
  const problem = made.op ? readPiece(apply(piece, made.op)).problem : made.says
  if (!made.op || problem !== null) {
    says.value = problem ?? made.says
    return
  }
  store.act(made.op)
  listing.reveal(`${as.value === 'cue' ? 'cues' : 'curves'}/${made.id}`)
  store.sayWithUndo(`${name.value}: ${made.says}`)
  emit('close')
}
</script>

<template>
  <DialogFrame title="A curve or a cue from a file" :wide="520" @close="emit('close')">
    <div class="flex flex-col gap-3 overflow-y-auto p-5">
      <input type="file" accept=".csv,.json,.txt,text/csv,application/json" aria-label="Table" @change="read" />
      <p v-if="!table && !says" class="text-faded">
        CSV or JSON with columns of numbers, one of which may be the times.
      </p>
      <p v-if="says" class="text-coral" role="alert">{{ says }}</p>
      <template v-if="table">
        <p class="text-faded">{{ table.rows }} rows, {{ table.columns.length }} columns of numbers.</p>
        <ChipRow v-model="as" says="As" :of="WAYS" />
        <label class="flex items-center gap-2"
          ><span class="w-16 text-faded">Name</span
          ><input v-model="name" class="field min-w-0 flex-1" maxlength="56" aria-label="Name"
        /></label>
        <div class="flex items-center gap-2">
          <span class="w-16 text-faded">Times</span>
          <SelectBox
            v-model="time"
            class="min-w-[150px]"
            label="Column of times"
            :of="[{ value: '', says: 'one row per frame' }, ...plainChoices(table.columns.map(c => c.name))]"
          />
          <SelectBox v-if="time !== ''" v-model="timeUnit" label="Unit of times" :of="plainChoices(TIME_UNITS)" />
        </div>
        <template v-if="as === 'curve'">
          <fieldset class="flex gap-2">
            <legend class="float-left w-16 text-faded">Columns</legend>
            <span class="flex flex-wrap gap-x-4 gap-y-1">
              <CheckBox
                v-for="c in table.columns"
                :key="c.name"
                :model-value="channels.includes(c.name)"
                :disabled="c.name === time"
                @update:model-value="
                  channels = $event ? [...channels, c.name] : channels.filter(name => name !== c.name)
                "
                >{{ c.name }}</CheckBox
              >
            </span>
          </fieldset>
          <div class="flex items-center gap-2">
            <span class="w-16 text-faded">Values</span>
            <SelectBox
              v-model="unit"
              class="w-[128px]"
              label="Unit of values"
              :of="UNITS.map(u => ({ value: u, says: u === '' ? 'plain numbers' : u }))"
            />
            <label class="flex items-center gap-2"
              >simplify within
              <QuantityInput
                class="field tabular w-20"
                label="Within"
                :value="within"
                :unit="unit"
                :low="0"
                :decimals="9"
                @set="within = $event"
            /></label>
          </div>
        </template>
      </template>
    </div>
    <template #foot>
      <button class="button" type="button" @click="emit('close')">Cancel</button>
      <button class="button button-strong" type="button" :disabled="!table" @click="take">Import</button>
    </template>
  </DialogFrame>
</template>
