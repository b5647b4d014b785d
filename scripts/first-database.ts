/**
 * Makes the database that a new data folder begins with, with the demo in it, so that a first start copies it: making
 * it takes a quarter of a minute of the processor, and memory that the server would keep. `jiti scripts/first-database.ts FOLDER`
 */
import { readFileSync, renameSync, rmSync } from 'node:fs'
import { seedDemo, DEMO } from '../server/database/demo.ts'
import { migrationFiles } from '../server/database/migration-files.ts'
import { makeDatabase } from '../server/database/open.ts'

const [at] = process.argv.slice(2)
if (!at) throw new Error('Which folder?')
for (const old of [at, `${at}.new`]) rmSync(old, { recursive: true, force: true })
const document = (id: string): unknown =>
  JSON.parse(readFileSync(new URL(`../demo/${id}.json`, import.meta.url), 'utf8'))
const demo = () => Promise.resolve(Object.fromEntries(DEMO.map(id => [id, document(id)])))
await makeDatabase(`${at}.new`, migrationFiles(), db => seedDemo(db, demo))
// There whole or not at all.
renameSync(`${at}.new`, at)
