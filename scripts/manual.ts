/** Writes docs/formula.md from the tables; with --check it must be current. */
import { readFileSync, writeFileSync } from 'node:fs'
import {
  EASINGS,
  GROUPS,
  SECTIONS,
  argumentDefault,
  argumentKind,
  functionsIn,
  callSignature,
} from '../core/manual/manual.ts'
import { RULES } from '../core/manual/rules.ts'
import { BUILTINS } from '../core/formula/words.ts'
import { kindName } from '../core/units/kinds.ts'
import { UNITS } from '../core/units/units.ts'
import { PROPERTIES } from '../core/piece/properties.ts'

const lines: string[] = [
  '# The formula language',
  '',
  'Written from the tables by `npm run manual`; the page `/manual` shows the same with live curves.',
  '',
]
const cell = (s: string) => s.replaceAll('|', '\\|')
const table = (head: readonly string[], rows: readonly (readonly string[])[]) =>
  lines.push(
    `| ${head.join(' | ')} |`,
    `|${head.map(() => '---').join('|')}|`,
    ...rows.map(r => `| ${r.map(cell).join(' | ')} |`),
    '',
  )

for (const s of SECTIONS) {
  lines.push(`## ${s.title}`, '', ...s.says.flatMap(p => [p, '']))
  if (s.examples) lines.push('```', ...s.examples.map(e => e.text), '```', '')
}
lines.push('## Units', '')
table(
  ['unit', 'kind', 'what it is'],
  UNITS.map(u => [`\`${u.name}\``, kindName(u.kind), u.says]),
)
lines.push('## Words', '')
table(
  ['word', 'gives', 'what it is'],
  BUILTINS.map(b => [`\`${b.name}\``, b.kind === 'base' ? 'as the property' : kindName(b.kind), b.says]),
)
for (const [group, title] of GROUPS) {
  lines.push(`## ${title}`, '')
  for (const f of functionsIn(group)) {
    lines.push(`### ${callSignature(f)}`, '', f.description, '', '```', f.example.text, '```', '')
    table(
      ['argument', 'takes', 'unless given', 'what it is'],
      f.parameters.map(p => [`\`${p.name}\``, argumentKind(p), argumentDefault(p), p.description]),
    )
  }
}
lines.push(
  '## Easings',
  '',
  '`linear` and `smooth`, and each family with `In`, `Out` and `InOut` behind its name; those with a strength take it in brackets, as in `backOut(2)`.',
  '',
)
table(
  ['family', 'what it is', 'strength unless given'],
  EASINGS.families.map(f => [`\`${f.name}\``, f.says, f.strength === undefined ? '' : String(f.strength)]),
)
lines.push('## Properties', '')
table(
  ['property', 'unit', 'what it is', 'which shapes'],
  PROPERTIES.map(p => [`\`${p.name}\``, p.unit, p.description, p.on ? p.on.join(', ') : 'all']),
)

lines.push('## The rules, one by one', '', 'Each is held by a test of its name.', '')
for (const [id, section] of Object.entries(RULES)) {
  lines.push(
    `### ${section.title}`,
    '',
    ...Object.entries(section.rules).map(([r, says]) => `- **${id}.${r}** ${says}`),
    '',
  )
}

const text = `${lines.join('\n').trimEnd()}\n`
const file = new URL('../docs/formula.md', import.meta.url)
if (!process.argv.includes('--check')) writeFileSync(file, text)
else if (readFileSync(file, 'utf8') !== text) {
  console.error('docs/formula.md is not what the tables say. Run npm run manual.')
  process.exit(1)
}
