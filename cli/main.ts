/** Open Tide at a prompt: `eval`, `check`, `bake`, `give`. Exit codes: 0 well, 1 a formula or piece is wrong, 2 the call is. */
import { bake } from './bake.ts'
import { WrongCall } from './call.ts'
import { check } from './check.ts'
import { give } from './give.ts'
import { evaluate } from './evaluate.ts'

const HELP = `Open Tide at a prompt

  ./open-tide                    serve the workbench
  ./open-tide eval FORMULA       the values of one formula
  ./open-tide check FILE         what is known of every drive of a piece
  ./open-tide bake FILE          the values of a piece, frame by frame, to a file
  ./open-tide give FILE          a piece as film, page, drawing, shapes, sound: a file in another format

Each command tells more with --help. FILE is a piece as JSON (- for standard input);
demo/lantern-pier.json is one.

Exit codes: 0 all is well, 1 a formula or a piece is wrong, 2 the call is.`

const [command, ...rest] = process.argv.slice(2)
const commands: Readonly<Record<string, (args: string[]) => Promise<number>>> = { eval: evaluate, check, bake, give }

try {
  const run = commands[command ?? '']
  if (run) process.exitCode = await run(rest)
  else {
    console.log(HELP)
    process.exitCode = command === undefined || command === '--help' || command === '-h' ? 0 : 2
  }
} catch (e) {
  if (!(e instanceof WrongCall)) throw e
  console.error(`open-tide ${command}: ${e.message}\nopen-tide ${command} --help tells how it is called.`)
  process.exitCode = 2
}
