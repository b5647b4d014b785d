/** Reads formulas by the grammar of the design page, for the trials alone. */
export type Tree =
  | { readonly is: 'number'; readonly text: string; readonly unit: string }
  | { readonly is: 'name'; readonly name: string }
  | { readonly is: 'dot'; readonly of: Tree; readonly name: string }
  | { readonly is: 'index'; readonly of: Tree; readonly at: Tree }
  | {
      readonly is: 'call'
      readonly name: string
      readonly args: readonly { readonly name: string; readonly of: Tree }[]
    }
  | { readonly is: 'one'; readonly op: string; readonly of: Tree }
  | { readonly is: 'two'; readonly op: string; readonly a: Tree; readonly b: Tree }
  | { readonly is: 'if'; readonly test: Tree; readonly yes: Tree; readonly no: Tree }
  | { readonly is: 'on'; readonly of: Tree; readonly clock: string }
  | { readonly is: 'let'; readonly name: string; readonly of: Tree; readonly then: Tree }

const TOKEN =
  /\s+|\/\/[^\n]*|(\d+\.?\d*(?:e[+-]?\d+)?|\.\d+)([A-Za-z%]*(?:\/(?:ms|min|s|f|lap)(?![\w(.[]))?)|([\p{L}_][\p{L}\p{N}_]*|`[^`]*`)|(\/(?:lap|ms|min|s|f)(?![\w(.[]))|([<>=!]=|[-+*/^<>(),.:;=[\]])/giuy

interface Token {
  readonly type: 'number' | 'name' | 'per' | 'sign'
  readonly text: string
  readonly unit: string
}

function tokens(text: string): Token[] {
  const found: Token[] = []
  TOKEN.lastIndex = 0
  while (TOKEN.lastIndex < text.length) {
    const m = TOKEN.exec(text)
    if (!m) throw new Error(`not read: ${text}`)
    // A rate joins only behind a unit: in `3/lap` the number stands alone.
    if (m[1] !== undefined) {
      const unit = m[2] ?? ''
      if (unit.startsWith('/')) {
        found.push({ type: 'number', text: m[1], unit: '' }, { type: 'per', text: unit.slice(1), unit: '' })
      } else found.push({ type: 'number', text: m[1], unit })
    } else if (m[3] !== undefined) found.push({ type: 'name', text: m[3].replaceAll('`', '').toLowerCase(), unit: '' })
    else if (m[4] !== undefined) found.push({ type: 'per', text: m[4].slice(1), unit: '' })
    else if (m[5] !== undefined) found.push({ type: 'sign', text: m[5], unit: '' })
  }
  return found
}

export function read(text: string): Tree {
  const all = tokens(text)
  let at = 0
  const is = (...texts: string[]) => at < all.length && all[at]!.type !== 'number' && texts.includes(all[at]!.text)
  const take = (text: string) => {
    if (!is(text)) throw new Error(`wanted ${text} in ${text}`)
    at++
  }
  const left = (next: () => Tree, ...ops: string[]) => {
    let a = next()
    while (is(...ops)) a = { is: 'two', op: all[at++]!.text, a, b: next() }
    return a
  }
  const formula = (): Tree => {
    if (is('let')) {
      at++
      const name = all[at++]!.text
      take('=')
      const of = expr()
      take(';')
      return { is: 'let', name, of, then: formula() }
    }
    return expr()
  }
  const expr = (): Tree => {
    let of = choice()
    while (is('on')) {
      at++
      of = { is: 'on', of, clock: all[at++]!.text }
    }
    return of
  }
  const choice = (): Tree => {
    if (!is('if')) return left(and, 'or')
    at++
    const test = choice()
    take('then')
    const yes = choice()
    take('else')
    return { is: 'if', test, yes, no: choice() }
  }
  const and = () => left(not, 'and')
  const not = (): Tree => {
    if (!is('not')) return left(sum, '<', '<=', '>', '>=', '==', '!=')
    at++
    return { is: 'one', op: 'not', of: not() }
  }
  const sum = () => left(product, '+', '-')
  const product = (): Tree => {
    let a = unary()
    for (;;) {
      if (all[at]?.type === 'per') a = { is: 'two', op: '/', a, b: { is: 'number', text: '1', unit: all[at++]!.text } }
      else if (is('*', '/')) a = { is: 'two', op: all[at++]!.text, a, b: unary() }
      else return a
    }
  }
  const unary = (): Tree => {
    if (!is('-', '+')) return power()
    const op = all[at++]!.text
    return { is: 'one', op, of: unary() }
  }
  const power = (): Tree => {
    const a = postfix()
    if (!is('^')) return a
    at++
    return { is: 'two', op: '^', a, b: unary() }
  }
  const postfix = (): Tree => {
    let of = primary()
    for (;;) {
      if (is('.')) {
        at++
        of = { is: 'dot', of, name: all[at++]!.text }
      } else if (is('[')) {
        at++
        of = { is: 'index', of, at: expr() }
        take(']')
      } else return of
    }
  }
  const primary = (): Tree => {
    const t = all[at++]
    if (!t) throw new Error(`ends too soon: ${text}`)
    if (t.type === 'number') return { is: 'number', text: t.text, unit: t.unit }
    if (t.text === '(') {
      const of = expr()
      take(')')
      return of
    }
    if (t.type !== 'name') throw new Error(`${t.text} in ${text}`)
    if (!is('(')) return { is: 'name', name: t.text }
    at++
    const args: { name: string; of: Tree }[] = []
    while (!is(')')) {
      const named = all[at]?.type === 'name' && all[at + 1]?.text === ':'
      const name = named ? all[at]!.text : ''
      if (named) at += 2
      args.push({ name, of: expr() })
      if (is(',')) at++
    }
    at++
    return { is: 'call', name: t.text, args }
  }
  const tree = formula()
  if (at < all.length) throw new Error(`more than was read: ${text}`)
  return tree
}
