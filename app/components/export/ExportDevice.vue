<script setup lang="ts">
/** Live values to a device: which drives, under which addresses, from which range into which; while the Quay plays, or by the server alone. */
import { signalKey } from '~~/core/piece/drive-key.ts'
import { Plus, X } from '@lucide/vue'
import { BOARD_PORT, type Channel } from '~~/core/piece/device.ts'
import { driveLabel } from '~~/core/formula/labels.ts'
import { instancesOf } from '~~/core/engine/instances.ts'
import { propertyOf } from '~~/core/insight/report.ts'
import { useDevice } from '~/stores/device.ts'
import { usePiece } from '~/stores/piece.ts'

const store = usePiece()
const it = useDevice()
onMounted(it.load)

const drives = computed(() =>
  [...Object.keys(store.piece!.drives), ...Object.keys(store.piece!.signals).map(signalKey)]
    .map(key => ({ key, says: driveLabel(store.piece!, key) }))
    .sort((a, b) => a.says.localeCompare(b.says)),
)
async function add(): Promise<void> {
  const drive = drives.value.find(d => !it.device.channels.some(c => c.drive === d.key))?.key
  if (drive === undefined) return
  it.device.channels.push(await channelOf(drive))
}
/** With the range the drive is known to have. */
async function channelOf(drive: string): Promise<Channel> {
  const part = store.piece!.drives[drive]?.part
  const many = part !== undefined && instancesOf(store.piece!, part).count > 1
  const name = driveLabel(store.piece!, drive)
    .replace(/[^A-Za-z0-9.]+/g, '')
    .replaceAll('.', '/')
    .toLowerCase()
  return { drive, address: many ? '/lamp/#' : `/${name || 'value'}`, low: 0, high: 100, outLow: 0, outHigh: 1 }
}
/** What a drive is shown in. */
const unitOf = (drive: string) => (store.program?.slots.has(drive) ? propertyOf(store.program, drive).unit : '')
const FIELDS = [
  ['low', 'from'],
  ['high', 'to'],
  ['outLow', 'becomes from'],
  ['outHigh', 'to, out'],
] as const
</script>

<template>
  <p class="text-faded">
    Values are sent as OSC 1.0 over UDP. The <NuxtLink class="link" to="/board" target="_blank">board</NuxtLink> that
    ships with Open Tide listens on port {{ BOARD_PORT }}: lamps, needles and servo arms to try things out with.
  </p>
  <table v-if="it.device.channels.length > 0" class="w-full [&_td]:py-1 [&_td]:pr-1">
    <thead class="text-left text-[12px] text-faded">
      <tr>
        <th class="font-normal">Drive</th>
        <th class="font-normal">Address</th>
        <th class="font-normal" colspan="2">from … to</th>
        <th class="font-normal" colspan="2">is sent as</th>
        <th><span class="sr-only">Remove</span></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(c, k) in it.device.channels" :key="k">
        <td>
          <ComboBox
            v-model="c.drive"
            class="w-36"
            :label="`Drive ${k + 1}`"
            :of="drives.map(d => ({ value: d.key, says: d.says }))"
          />
        </td>
        <td><input v-model="c.address" class="field tabular w-24" :aria-label="`Address ${k + 1}`" /></td>
        <td v-for="[of, says] in FIELDS" :key="of">
          <QuantityInput
            class="field tabular w-14"
            :label="`Drive ${k + 1}, ${says}`"
            :value="c[of]"
            :unit="of === 'low' || of === 'high' ? unitOf(c.drive) : ''"
            @set="c[of] = $event"
          />
        </td>
        <td>
          <IconButton :label="`Remove drive ${k + 1}`" @click="it.device.channels.splice(k, 1)"
            ><X :size="14"
          /></IconButton>
        </td>
      </tr>
    </tbody>
  </table>
  <button class="button self-start" type="button" :disabled="!it.known || drives.length === 0" @click="add">
    <Plus :size="14" />A drive
  </button>
  <p v-if="it.device.channels.some(c => c.address.includes('#'))" class="text-[12px] text-faded">
    # is the copy’s number, from 1.
  </p>
  <div class="flex flex-wrap items-center gap-2">
    <label class="flex items-center gap-1"
      >to <input v-model="it.device.host" class="field w-28" aria-label="Host"
    /></label>
    <label class="flex items-center gap-1"
      >port
      <QuantityInput
        class="field tabular w-20"
        label="Port"
        :value="it.device.port"
        :low="1"
        :high="65535"
        whole
        @set="it.device.port = $event"
    /></label>
    <label class="flex items-center gap-1"
      ><QuantityInput
        class="field tabular w-16"
        label="Times a second"
        :value="it.device.rate"
        :low="1"
        :high="120"
        @set="it.device.rate = $event"
      />
      times a second</label
    >
    <label class="flex items-center gap-1"
      >listen on
      <QuantityInput
        class="field tabular w-20"
        label="Incoming port"
        :value="it.device.listen"
        :low="1"
        :high="65535"
        whole
        clears
        @set="it.device.listen = $event"
        @clear="it.device.listen = null"
    /></label>
  </div>
  <p v-if="it.device.listen" class="text-[12px] text-faded">
    /dial/NAME with a number turns a dial, /cue/NAME taps a cue.
  </p>
  <div class="flex flex-wrap items-center gap-2 border-t border-rule pt-3">
    <button
      v-if="!it.live"
      class="button button-strong"
      type="button"
      :disabled="it.device.channels.length === 0"
      @click="it.begin"
    >
      Send while playing here
    </button>
    <button v-if="!it.live" class="button" type="button" :disabled="it.device.channels.length === 0" @click="it.alone">
      Send from the server
    </button>
    <button v-if="it.live || it.status.by" class="button" type="button" @click="it.stop">Stop sending</button>
    <span role="status" class="text-faded">{{
      it.live
        ? `Sending ${it.device.rate} times a second while playing here.`
        : it.status.by === 'alone'
          ? 'The server is sending the saved piece.'
          : ''
    }}</span>
  </div>
  <p v-if="it.wrong || it.status.says" class="text-coral" role="alert">{{ it.wrong || it.status.says }}</p>
</template>
