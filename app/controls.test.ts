/** The controls are ours: none is drawn by the browser, and each kind stands in one component. */
import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

const files = (folder: string): string[] =>
  readdirSync(folder).flatMap(name => {
    const path = join(folder, name)
    return statSync(path).isDirectory() ? files(path) : path.endsWith('.vue') ? [path] : []
  })
const sources = files('app').map(path => [path.replaceAll('\\', '/'), readFileSync(path, 'utf8')] as const)
/** Where something stands, and the one component that may have it. */
const found = (what: RegExp, home?: string) =>
  sources
    .filter(([path, text]) => what.test(text) && !(home && path.endsWith(`controls/${home}`)))
    .map(([path]) => path)

describe('the controls', () => {
  it('are looked for in all components', () => expect(sources.length).toBeGreaterThan(90))
  it.each([
    ['a list', /<select|<option|<datalist|list="/, undefined],
    ['a tick', /type="checkbox"/, 'CheckBox.vue'],
    ['a radio', /type="radio"/, undefined],
    ['a slide', /type="range"/, 'SliderBar.vue'],
    ['a day', /type="(date|time|month|week|datetime-local)"/, undefined],
    ['a colour', /type="color"/, undefined],
    ['a number', /type="number"/, undefined],
    ['a bar of progress', /<(progress|meter)/, undefined],
    ['a dialog', /<Dialog\b/, 'DialogFrame.vue'],
    ['a question of the browser’s', /\b(alert|confirm|prompt)\(/, undefined],
  ])('%s is none of the browser’s', (_, what, home) => {
    // The search has a frame of its own: it stands at the top and is no question.
    expect(found(what, home).filter(path => !path.endsWith('FindAnything.vue'))).toEqual([])
  })
  it('a tooltip is ours: no title of an element', () => {
    const titled = sources.flatMap(([path, text]) =>
      [...text.matchAll(/<([A-Za-z]+)\s[^<>]*?\s:?title="/g)]
        .filter(([, tag]) => !/^(DialogFrame|EmptyNote|FoldSection)$/.test(tag!))
        .map(([, tag]) => `${path} ${tag}`),
    )
    expect(titled).toEqual([])
  })
})
