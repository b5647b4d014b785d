/** Open Tide at a prompt: `eval`, `check`, `bake`, `give`. Exit codes: 0 well, 1 a formula or piece is wrong, 2 the call is. */
import { run } from './run.ts'

process.exitCode = await run(process.argv.slice(2))
