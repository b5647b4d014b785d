/**
 * Every text that Open Tide can show, by screen: what stands in templates, and every string with a word of English in it
 * in the code of the app, the core, the server and the prompt. `npm run words [part of a path]`
 */
import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { parse } from '@vue/compiler-sfc'
import ts from 'typescript'

/** Attributes of a template that people read or hear. */
const SHOWN =
  /^(aria-label|title|placeholder|label|says|description|message|undoLabel|alt|text|heading|hint|button|empty|name|unit|data-tip|none)$/
const NODE = { element: 1, text: 2, comment: 3, interpolation: 5, attribute: 6, directive: 7 } as const

interface Template {
  readonly type: number
  readonly children?: readonly Template[]
  readonly content?: string | { readonly content: string }
  readonly props?: readonly {
    readonly type: number
    readonly name: string
    readonly value?: { readonly content: string }
    readonly exp?: { readonly content: string }
  }[]
}

/** Whether people would read it: a word of letters with a space beside it, or one that begins with a capital. */
const isRead = (s: string): boolean =>
  /[a-zA-Z]{2}/.test(s) &&
  (/[a-z…] |[A-Z][a-z]+( |$|[.…:])/.test(s) || /^[A-Z][a-z]+/.test(s)) &&
  !/^(M|m)?[\d ,.-]+$|^[a-z-]+:|^\.{0,2}\/|^@|[{}<>]=|^(import|flex|grid|rounded|text-|bg-|px-)/.test(s)

/** The strings of some code, templates with their gaps as …. */
export function stringsIn(code: string): string[] {
  const found: string[] = []
  const file = ts.createSourceFile('it.ts', code, ts.ScriptTarget.Latest, true)
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isLiteralTypeNode(node) || ts.isTypeNode(node)) return
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) found.push(node.text)
    else if (ts.isTemplateExpression(node)) {
      found.push(node.head.text + node.templateSpans.map(s => '…' + s.literal.text).join(''))
      node.templateSpans.forEach(s => visit(s.expression))
      return
    }
    ts.forEachChild(node, visit)
  }
  visit(file)
  return found
}

/** The texts of a component: its template's, and its script's strings. */
export function textsOfComponent(source: string): string[] {
  const { descriptor } = parse(source)
  const found: string[] = []
  const visit = (node: Template): void => {
    if (node.type === NODE.text && typeof node.content === 'string') found.push(node.content)
    if (node.type === NODE.interpolation && typeof node.content === 'object')
      found.push(...stringsIn(node.content.content).filter(isRead))
    for (const p of node.props ?? []) {
      if (p.type === NODE.attribute && SHOWN.test(p.name) && p.value) found.push(p.value.content)
      if (p.type === NODE.directive && p.exp && p.name !== 'on') found.push(...stringsIn(p.exp.content).filter(isRead))
    }
    node.children?.forEach(visit)
  }
  if (descriptor.template?.ast) visit(descriptor.template.ast as unknown as Template)
  const scripts = [descriptor.script?.content, descriptor.scriptSetup?.content].filter(s => s !== undefined)
  return [...found, ...scripts.flatMap(s => stringsIn(s).filter(isRead))]
}

const files = (folder: string): string[] =>
  readdirSync(folder).flatMap(name => {
    const path = join(folder, name)
    if (statSync(path).isDirectory()) return name === 'node_modules' ? [] : files(path)
    return /\.(vue|ts)$/.test(name) && !/\.(test|d)\.ts$/.test(name) ? [path] : []
  })

/** All texts, each file's once. */
export function texts(folders: readonly string[] = ['app', 'core', 'server', 'cli']): Map<string, string[]> {
  const all = new Map<string, string[]>()
  for (const path of folders.flatMap(files)) {
    const source = readFileSync(path, 'utf8')
    const found = path.endsWith('.vue') ? textsOfComponent(source) : stringsIn(source).filter(isRead)
    const shown = [...new Set(found.map(s => s.replace(/\s+/g, ' ').trim()))].filter(s => /[a-zA-Z]{2}/.test(s))
    if (shown.length > 0) all.set(path, shown)
  }
  return all
}

if (process.argv[1]?.endsWith('words.ts')) {
  const only = process.argv[2] ?? ''
  let count = 0
  for (const [path, shown] of texts()) {
    if (!path.includes(only)) continue
    console.log(`\n${path}`)
    for (const s of shown) console.log(`  ${s}`)
    count += shown.length
  }
  console.log(`\n${count} texts`)
}
