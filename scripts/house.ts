/**
 * Measures what makes the code hard to read: names exported twice, files with the same name, non-null assertions, long
 * functions and files, crowded folders. `npm run house`; with `-- --all` it prints the complete lists.
 */
import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { basename, dirname } from 'node:path'
import ts from 'typescript'

/** How many rows of a list are shown. */
const ROWS = process.argv.includes('--all') ? Infinity : 8
/** Numeric loops, where `a[i]!` is unavoidable with `noUncheckedIndexedAccess`. */
const NUMERIC = /^core\/(time|signal|columns|rig|engine\/plan|formats)\/|^app\/(stage|player)\//

const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard', '*.ts', '*.vue', '*.mjs'])
  .toString()
  .split('\n')
  .filter(file => file && existsSync(file) && !/\.d\.ts$|\.parser(\.terms)?\.ts$|shims/.test(file))
const isTest = (file: string) => /\.(test|spec)\.ts$|^tests\/|^core\/testing\//.test(file)

/** The script of a file: all of it, or the `<script>` of a component. */
function scriptOf(file: string): string {
  const text = readFileSync(file, 'utf8')
  return file.endsWith('.vue') ? (/<script[^>]*>([^]*?)<\/script>/.exec(text)?.[1] ?? '') : text
}

interface LongFunction {
  readonly name: string
  readonly file: string
  readonly lines: number
}
const functions: LongFunction[] = []
const exported = new Map<string, string[]>()
const assertions = new Map<string, number>()
const add = (map: Map<string, string[]>, key: string, file: string) => map.set(key, [...(map.get(key) ?? []), file])

/** Collects functions, assertions and exports of a file. */
function read(file: string): void {
  const source = ts.createSourceFile(file, scriptOf(file), ts.ScriptTarget.ESNext, true, ts.ScriptKind.TS)
  const visit = (node: ts.Node): void => {
    if (ts.isNonNullExpression(node)) assertions.set(file, (assertions.get(file) ?? 0) + 1)
    if (ts.isFunctionLike(node) && 'body' in node && node.body) {
      const [from, to] = [node.getStart(), node.end].map(at => source.getLineAndCharacterOfPosition(at).line)
      const named = node.name ?? (ts.isVariableDeclaration(node.parent) ? node.parent.name : undefined)
      functions.push({ name: named?.getText() ?? 'a function', file, lines: to! - from! + 1 })
    }
    ts.forEachChild(node, visit)
  }
  visit(source)
  for (const statement of source.statements) {
    if (
      !ts.canHaveModifiers(statement) ||
      !ts.getModifiers(statement)?.some(m => m.kind === ts.SyntaxKind.ExportKeyword)
    )
      continue
    const names = ts.isVariableStatement(statement)
      ? statement.declarationList.declarations.map(d => d.name.getText())
      : 'name' in statement && statement.name
        ? [(statement.name as ts.Node).getText()]
        : []
    // Overloads count once, and so do a type and a value with the same name in one file.
    for (const name of new Set(names)) if (exported.get(name)?.at(-1) !== file) add(exported, name, file)
  }
}

const lines = new Map<string, number>()
for (const file of files) {
  lines.set(file, readFileSync(file, 'utf8').split('\n').length - 1)
  if (!isTest(file)) read(file)
}

const show = (title: string, count: number, rows: readonly string[]) => {
  console.log(`${String(count).padStart(6)}  ${title}`)
  for (const row of rows.slice(0, ROWS)) console.log(`          ${row}`)
}
/** Entries that occur in more than one file. */
const repeated = (map: ReadonlyMap<string, readonly string[]>) =>
  [...map].filter(([, where]) => where.length > 1).sort((a, b) => b[1].length - a[1].length)
const most = <T>(rows: Iterable<T>, by: (row: T) => number) => [...rows].sort((a, b) => by(b) - by(a))

const sources = files.filter(file => !isTest(file) && !/^(tests|scripts)\//.test(file))
// Route files are named after address and method, and `index.ts` is the door of a folder.
const ownNames = sources.filter(file => !/^server\/(api|routes)\/|\/(index|\[id\]|worker)\.(ts|vue)$/.test(file))
const byName = new Map<string, string[]>()
for (const file of ownNames) add(byName, basename(file), dirname(file))
const folders = new Map<string, string[]>()
for (const file of sources) add(folders, dirname(file), file)

const twice = repeated(exported)
show(
  'names exported by more than one file',
  twice.length,
  twice.map(([name, where]) => `${name}: ${where.join(', ')}`),
)
const alike = repeated(byName)
show(
  'file names that occur more than once',
  alike.length,
  alike.map(([name, where]) => `${name}: ${where.join(', ')}`),
)
const plain = [...assertions].filter(([file]) => !NUMERIC.test(file))
const sum = (rows: readonly (readonly [string, number])[]) => rows.reduce((all, [, n]) => all + n, 0)
show(
  '`!` outside numeric files',
  sum(plain),
  most(plain, r => r[1]).map(([file, n]) => `${n} ${file}`),
)
show('`!` in numeric files', sum([...assertions].filter(([file]) => NUMERIC.test(file))), [])
const long = most(
  functions.filter(f => f.lines > 80),
  f => f.lines,
)
show(
  'functions longer than 80 lines',
  long.length,
  long.map(f => `${f.lines} ${f.name}, ${f.file}`),
)
const large = most(
  [...lines].filter(([file]) => !isTest(file)),
  r => r[1],
).filter(([, n]) => n > 300)
show(
  'files longer than 300 lines',
  large.length,
  large.map(([file, n]) => `${n} ${file}`),
)
const crowded = most(folders, ([, all]) => all.length).filter(([, all]) => all.length > 25)
show(
  'folders of more than 25 files',
  crowded.length,
  crowded.map(([folder, all]) => `${all.length} ${folder}`),
)
const [tests, all] = [sum([...lines].filter(([file]) => isTest(file))), sum([...lines])]
console.log(`${String(all).padStart(6)}  lines, ${Math.round((100 * tests) / all)} % of them tests`)
