<script setup lang="ts">
/** The simulated board: lamps, needles and servo arms that follow what comes by OSC on its own port. */
import type { Message } from '~~/core/formats/osc/osc.ts'

type Shown = 'lamp' | 'needle' | 'servo'
const COUNT: Readonly<Record<Shown, number>> = { lamp: 8, needle: 4, servo: 4 }
const values = ref<Record<string, number>>({})
const others = ref<Record<string, string>>({})
const port = ref(0)
const wrong = ref('')
const packets = ref(0)
let source: EventSource | null = null

onMounted(() => {
  source = new EventSource('/api/board/events')
  source.onmessage = e => {
    const said = JSON.parse(e.data as string) as Message[] | { port?: number; says?: string }
    if (!Array.isArray(said)) {
      port.value = said.port ?? port.value
      wrong.value = said.says ?? ''
      return
    }
    packets.value++
    for (const { address, values: all } of said) {
      const [, kind, nth] = /^\/(lamp|needle|servo)\/(\d+)$/.exec(address) ?? []
      if (kind && Number(nth) >= 1 && Number(nth) <= COUNT[kind as Shown] && typeof all[0] === 'number')
        values.value[`${kind} ${nth}`] = all[0]
      else if (Object.keys(others.value).length < 40 || address in others.value) others.value[address] = all.join(' ')
    }
  }
  source.onerror = () => (wrong.value = 'The board lost its connection and is reconnecting.')
  source.onopen = () => (wrong.value = '')
})
onBeforeUnmount(() => source?.close())
useHead({ title: 'Board · Open Tide' })

const of = (kind: Shown, n: number, least: number, most: number) =>
  Math.min(most, Math.max(least, values.value[`${kind} ${n}`] ?? 0))
</script>

<template>
  <main class="mx-auto max-w-[860px] px-6 py-8">
    <h1 class="text-[22px] font-semibold">Board</h1>
    <p class="mt-1 mb-6 text-faded">
      A simulated device. It listens on port {{ port || '…' }} of this machine for OSC: /lamp/1 … 8 (0 to 1), /needle/1
      … 4 (−1 to 1), /servo/1 … 4 (0 to 180). <span role="status">{{ packets }} packets received.</span>
    </p>
    <p v-if="wrong" class="mb-4 text-coral" role="alert">{{ wrong }}</p>
    <section class="mb-8 flex flex-wrap gap-4" aria-label="Lamps">
      <figure v-for="n in COUNT.lamp" :key="n" class="text-center">
        <div
          class="h-16 w-16 rounded-full border-2 border-rule"
          role="img"
          :data-lamp="n"
          :aria-label="`Lamp ${n}: ${Math.round(of('lamp', n, 0, 1) * 100)} %`"
          :style="{
            background: `color-mix(in oklab, var(--band), #ffd873 ${of('lamp', n, 0, 1) * 100}%)`,
            boxShadow: `0 0 ${of('lamp', n, 0, 1) * 26}px #ffd873`,
          }"
        />
        <figcaption class="tabular mt-1 text-[12px] text-faded">{{ n }}</figcaption>
      </figure>
    </section>
    <section class="mb-8 grid grid-cols-4 gap-6" aria-label="Needles">
      <figure v-for="n in COUNT.needle" :key="n" class="rounded-md border border-rule bg-sheet p-3 text-center">
        <svg
          viewBox="-50 -50 100 56"
          class="block w-full"
          role="img"
          :aria-label="`Needle ${n}: ${of('needle', n, -1, 1).toFixed(2)}`"
        >
          <path d="M-42 -8A44 44 0 0 1 42 -8" fill="none" stroke="var(--rule)" stroke-width="3" />
          <line
            y2="-42"
            stroke="var(--coral)"
            stroke-width="3"
            stroke-linecap="round"
            :transform="`rotate(${of('needle', n, -1, 1) * 70})`"
          />
          <circle r="4" fill="var(--ink)" />
        </svg>
        <figcaption class="tabular text-[12px] text-faded">{{ of('needle', n, -1, 1).toFixed(2) }}</figcaption>
      </figure>
    </section>
    <section class="mb-8 grid grid-cols-4 gap-6" aria-label="Servo arms">
      <figure v-for="n in COUNT.servo" :key="n" class="rounded-md border border-rule bg-sheet p-3 text-center">
        <svg
          viewBox="-50 -46 100 60"
          class="block w-full"
          role="img"
          :aria-label="`Servo ${n}: ${of('servo', n, 0, 180).toFixed(0)}°`"
        >
          <rect x="-16" y="-6" width="32" height="18" rx="3" fill="var(--faded)" />
          <line
            x2="40"
            stroke="var(--sea)"
            stroke-width="7"
            stroke-linecap="round"
            :transform="`rotate(${-of('servo', n, 0, 180)})`"
          />
          <circle r="6" fill="var(--ink)" />
        </svg>
        <figcaption class="tabular text-[12px] text-faded">{{ of('servo', n, 0, 180).toFixed(0) }}°</figcaption>
      </figure>
    </section>
    <section v-if="Object.keys(others).length > 0" aria-label="Other messages">
      <h2 class="mb-1 font-semibold">Other messages</h2>
      <ul class="tabular">
        <li v-for="(value, address) in others" :key="address" class="flex justify-between border-t border-rule py-1">
          <span>{{ address }}</span><span>{{ value }}</span>
        </li>
      </ul>
    </section>
  </main>
</template>
