import { tryValues } from './values.ts'
const [n = '20', seed = '1', only] = process.argv.slice(2)
for (const t of tryValues(Number(n), Number(seed), only)) {
  console.log(`${t.kind}: ${t.values} values, ${t.wrong} wrong, ${t.refused} refused, ${t.unsure} unsure`)
  for (const e of t.examples.slice(0, Number(process.env.EX ?? 4))) console.log('   ', e)
}
