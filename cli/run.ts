/** A call at the prompt: which command it is, and what it comes to. */
import { bake } from './bake.ts'
import { WrongCall } from './call.ts'
import { checkCommand } from './check-command.ts'
import { evaluate } from './evaluate.ts'
import { exportCommand } from './export-command.ts'

const HELP = `Open Tide at a prompt

  ./open-tide                    serve the workbench
  ./open-tide eval FORMULA       the values of one formula
  ./open-tide check FILE         everything Open Tide knows about a piece’s drives
  ./open-tide bake FILE          the values of a piece, frame by frame, in a file
  ./open-tide give FILE          export a piece as a film, page, drawing, 3D scene, sound or table

Each command tells more with --help. FILE is a piece as JSON (- for standard input);
demo/lantern-pier.json is one.

Exit codes: 0 all is well, 1 a formula or a piece is wrong, 2 the call is.`

const COMMANDS: Readonly<Record<string, (args: string[]) => Promise<number>>> = {
  eval: evaluate,
  check: checkCommand,
  bake,
  give: exportCommand,
}

/** Runs a call, given as its words after `./open-tide`; gives its exit code. */
export async function run([command, ...rest]: string[]): Promise<number> {
  try {
    const known = COMMANDS[command ?? '']
    if (known) return await known(rest)
    console.log(HELP)
    return command === undefined || command === '--help' || command === '-h' ? 0 : 2
  } catch (e) {
    if (!(e instanceof WrongCall)) throw e
    console.error(`open-tide ${command}: ${e.message}\nopen-tide ${command} --help tells you how to use it.`)
    return 2
  }
}
