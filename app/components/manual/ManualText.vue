<script setup lang="ts">
/** The text of the manual, from the tables, with live curves. */
import {
  EASINGS,
  GROUPS,
  SECTIONS,
  argumentDefault,
  argumentKind,
  functionsIn,
  callSignature,
} from '~~/core/manual/manual.ts'
import { anchorOf as anchor } from '~~/core/manual/search.ts'
import { WORKING } from '~~/core/manual/working.ts'
import { RULES } from '~~/core/manual/rules.ts'
import { BUILTINS } from '~~/core/formula/words.ts'
import { easingNamed } from '~~/core/signal/easing.ts'
import { PROPERTIES } from '~~/core/piece/properties.ts'
import { kindName } from '~~/core/units/kinds.ts'
import { UNITS } from '~~/core/units/units.ts'

/** Text with its `formulas` apart. */
const parts = (text: string) =>
  text.split('`').map((t, i) => ({ code: i % 2 === 1, text: i % 2 === 1 ? t : t.replaceAll('*', '') }))

/** An easing as a small picture. */
function curve(name: string): string {
  const { ease } = easingNamed(name)!
  return Array.from(
    { length: 41 },
    (_, k) => `${k === 0 ? 'M' : 'L'}${(k * 1.5).toFixed(1)} ${(46 - ease(k / 40) * 34).toFixed(1)}`,
  ).join('')
}
</script>

<template>
  <div class="max-w-[720px] pb-24">
    <section v-for="s in [...SECTIONS, ...WORKING]" :id="anchor(s.title)" :key="s.title" class="mb-8">
      <h2 class="mb-2 text-[18px] leading-6 font-semibold">{{ s.title }}</h2>
      <p v-for="p in s.says" :key="p" class="mb-2 text-[14px] leading-[21px]">
        <template v-for="(t, i) in parts(p)" :key="i"
          ><code v-if="t.code" class="tabular rounded-sm bg-band px-1 text-[13px]">{{ t.text }}</code
          ><template v-else>{{ t.text }}</template></template
        >
      </p>
      <ManualPicture v-if="s.picture" :of="s.picture" />
      <ManualCurve v-for="e in s.examples ?? []" :key="e.text" :example="e" />
    </section>

    <section :id="anchor('Units')" class="mb-8">
      <h2 class="mb-2 text-[18px] leading-6 font-semibold">Units</h2>
      <table class="manual-table">
        <tbody>
          <tr v-for="u in UNITS" :key="u.name">
            <th scope="row" class="tabular">{{ u.name }}</th>
            <td>{{ kindName(u.kind) }}</td>
            <td>{{ u.says }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <section :id="anchor('Words')" class="mb-8">
      <h2 class="mb-2 text-[18px] leading-6 font-semibold">Words</h2>
      <table class="manual-table">
        <tbody>
          <tr v-for="b in BUILTINS" :key="b.name">
            <th scope="row" class="tabular">{{ b.name }}</th>
            <td>{{ b.kind === 'base' ? 'as the property' : kindName(b.kind) }}</td>
            <td>{{ b.says }}</td>
          </tr>
        </tbody>
      </table>
    </section>

    <section v-for="[group, title] in GROUPS" :id="anchor(title)" :key="group" class="mb-8">
      <h2 class="mb-3 text-[18px] leading-6 font-semibold">{{ title }}</h2>
      <article v-for="f in functionsIn(group)" :id="`fn-${f.name}`" :key="f.name" class="mb-6">
        <h3 class="tabular text-[14px] font-medium">{{ callSignature(f) }}</h3>
        <p class="mt-1 text-[14px] leading-[21px]">{{ f.description.replaceAll('`', '') }}</p>
        <ManualCurve :example="f.example" />
        <table class="manual-table">
          <tbody>
            <tr v-for="p in f.parameters" :key="p.name">
              <th scope="row" class="tabular">{{ p.name }}</th>
              <td>{{ argumentKind(p) }}</td>
              <td class="tabular">{{ argumentDefault(p) }}</td>
              <td>{{ p.description }}</td>
            </tr>
          </tbody>
        </table>
      </article>
    </section>

    <section :id="anchor('Easings')" class="mb-8">
      <h2 class="mb-2 text-[18px] leading-6 font-semibold">Easings</h2>
      <p class="mb-3 text-[14px] leading-[21px]">
        Easings of the families pow, back, elastic and bounce take a strength in brackets, as in
        <code class="tabular rounded-sm bg-band px-1 text-[13px]">backOut(2)</code>.
      </p>
      <ul class="grid grid-cols-[repeat(auto-fill,minmax(108px,1fr))] gap-3">
        <li v-for="n in EASINGS.names" :key="n" class="rounded-md border border-rule bg-sheet px-2 pt-1 pb-1">
          <svg
            viewBox="0 0 60 58"
            class="block h-12 w-full"
            fill="none"
            stroke="var(--sea)"
            stroke-width="2"
            aria-hidden="true"
          >
            <path d="M0 46H60M0 12H60" stroke="var(--rule)" stroke-width="1" />
            <path :d="curve(n)" />
          </svg>
          <span class="tabular block truncate text-[11.5px]">{{ n }}</span>
        </li>
      </ul>
    </section>
    <section :id="anchor('Properties')" class="mb-8">
      <h2 class="mb-2 text-[18px] leading-6 font-semibold">Properties</h2>
      <table class="manual-table">
        <tbody>
          <tr v-for="p in PROPERTIES" :key="p.name">
            <th scope="row" class="tabular">{{ p.name }}</th>
            <td class="tabular">{{ p.unit }}</td>
            <td>{{ p.description }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <section :id="anchor('The rules, one by one')">
      <h2 class="mb-1 text-[18px] leading-6 font-semibold">The rules, one by one</h2>
      <p class="mb-3 text-[14px] text-faded">Each is held by a test of its name.</p>
      <template v-for="(section, id) in RULES" :key="id">
        <h3 class="mt-4 mb-1 text-[14px] font-semibold">{{ section.title }}</h3>
        <ul>
          <li
            v-for="(says, rule) in section.rules"
            :id="`rule-${rule}`"
            :key="rule"
            class="py-[3px] text-[13px] leading-[19px]"
          >
            <template v-for="(t, i) in parts(says)" :key="i"
              ><code v-if="t.code" class="tabular rounded-sm bg-band px-1 text-[12.5px]">{{ t.text }}</code
              ><template v-else>{{ t.text.replaceAll('*', '') }}</template></template
            >
          </li>
        </ul>
      </template>
    </section>
  </div>
</template>

<style>
.manual-table {
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
  font-size: 13px;
}
.manual-table th,
.manual-table td {
  padding: 3px 12px 3px 0;
  border-bottom: 1px solid var(--rule);
  text-align: left;
  vertical-align: top;
  font-weight: 400;
}
.manual-table th {
  width: 120px;
}
.manual-table td {
  color: var(--faded);
}
.manual-table td:last-child {
  color: var(--ink);
}
</style>
