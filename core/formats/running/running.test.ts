import { createHash } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { Builder } from '../../acts/build.ts'
import { moduleOf, pageOf, type BundledPiece } from './running.ts'

const hash = async (text: string) => createHash('sha256').update(text).digest('base64')
const RUNNER = 'var OpenTide={mount(){}}'
const carried = (title: string): BundledPiece => ({
  piece: new Builder(title, 1).piece,
  pictures: new Map(),
  lent: [],
  controls: 'dials',
})

describe('a page that runs', () => {
  it('names the hashes of its one script and its one style, and allows nothing else', async () => {
    const page = await pageOf(RUNNER, carried('Pier'), hash)
    const policy = /http-equiv="Content-Security-Policy" content="([^"]+)"/.exec(page)![1]!
    expect(policy).toMatch(/^default-src 'none'; script-src 'sha256-[^']+'; style-src 'sha256-[^']+'; /)
    expect(policy).not.toMatch(/unsafe|\*|https?:/)
    const script = /<script>([\s\S]*)<\/script>/.exec(page)![1]!
    expect(policy).toContain(`'sha256-${await hash(script)}'`)
    expect(policy).toContain(`'sha256-${await hash(/<style>([\s\S]*)<\/style>/.exec(page)![1]!)}'`)
  })
  it('cannot be broken out of by a title, a word or a formula', async () => {
    const evil = '</script><script>alert(1)</script><!--\u2028'
    const page = await pageOf(RUNNER, carried(evil), hash)
    expect(page.match(/<script/g)).toHaveLength(2)
    expect(page).not.toContain('<!--')
    const held = /<script type="application\/json" id="piece">([\s\S]*?)<\/script>/.exec(page)![1]!
    expect((JSON.parse(held) as { piece: { title: string } }).piece.title).toBe(evil)
    const code = moduleOf(RUNNER, carried('*/ alert(1) /*\n alert(2)'))
    expect(code.split('\n')[0]).toMatch(/^\/\* .*\*\/$/)
    expect(code.slice(0, code.indexOf('*/') + 2)).not.toContain('alert(1) /*\n')
  })
})
