import { KINDS } from './made.ts'
import { tryClaims } from './claims.ts'
const [n = '10', seed = '1', only] = process.argv.slice(2)
for (const [i, k] of KINDS.entries()) {
  if (only && !k.name.includes(only)) continue
  const began = Date.now()
  for (const t of tryClaims(Number(n), Number(seed) + i, k.name)) {
    console.log(
      `${t.kind}: ${t.claims} claims, ${t.wrong} wrong, ${t.unproven} unproven, ${t.loose} loose (${t.worst.toFixed(1)}) ${Date.now() - began} ms`,
    )
    for (const e of t.examples.slice(0, Number(process.env.EX ?? 5))) console.log('   ', e)
  }
}
