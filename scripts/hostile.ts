/** Hostile documents by the thousand, each tried as the product would. `npx jiti scripts/hostile.ts 5000 SEED` */
import { document } from '../tests/hostile/documents.ts'
import { random } from '../tests/random.ts'
import { THOUGHT_OF } from '../tests/hostile/thought.ts'
import { tryDocument } from '../tests/hostile/trial.ts'

const count = Number(process.argv[2] ?? 1000)
const seed = Number(process.argv[3] ?? 1)
/** Milliseconds that one thing may take in one go: on a page or the server, and in a worker. */
const MOST = 2000
const MOST_BESIDE = 10_000

let [taken, wrong, slow, slowest, ended, beside] = [0, 0, 0, 0, 0, 0]
const tell = (name: string, d: unknown, whole = true) => {
  const t = tryDocument(d, whole ? 'whole' : 'briefly')
  if (t.taken) taken++
  slowest = Math.max(slowest, t.longest)
  beside = Math.max(beside, t.beside)
  if (t.beside > MOST_BESIDE) ended++
  if (t.wrong) {
    wrong++
    console.log(`${name}: ${t.wrong}`)
  }
  if (t.longest > MOST) {
    slow++
    console.log(`${name}: ${t.what} took ${Math.round(t.longest)} ms`)
  }
  return t
}
for (const [name, make] of Object.entries(THOUGHT_OF)) {
  const t = tell(name, make())
  if (process.argv.includes('--all'))
    console.log(`${name}: ${t.taken ? 'taken' : 'refused'}, ${Math.round(t.longest)} ms (${t.what})`)
}
const r = random(seed)
// Every tenth is looked at in full: many moments, all its reports, its still.
for (let n = 0; n < count; n++) tell(`document ${n}`, document(r), n % 10 === 0)
console.log(
  `${count + Object.keys(THOUGHT_OF).length} documents, ${taken} taken, ${wrong} went wrong, ${slow} took more than ${MOST} ms; the slowest ${Math.round(slowest)} ms; in workers the slowest ${Math.round(beside)} ms, ${ended} would have been ended`,
)
process.exit(wrong + slow > 0 ? 1 : 0)
