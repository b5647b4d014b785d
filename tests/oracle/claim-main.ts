import { tryClaims } from './claims.ts'
const [n = '10', seed = '1', only] = process.argv.slice(2)
for (const t of tryClaims(Number(n), Number(seed), only)) {
  console.log(`${t.kind}: ${t.claims} claims, ${t.wrong} wrong, ${t.unproven} unproven, ${t.loose} loose (${t.worst.toFixed(1)})`)
  for (const e of t.examples.slice(0, Number(process.env.EX ?? 5))) console.log('   ', e)
}
