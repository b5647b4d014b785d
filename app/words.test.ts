/** How Open Tide speaks: what once read like a translation does not come back, in anything that it can show. */
import { describe, expect, it } from 'vitest'
import { texts } from '../scripts/words.ts'

/** Ways of saying that have a better one, with that one. */
const WAYS: readonly (readonly [RegExp, string])[] = [
  [/\bgive(n)? out\b|\bgiving out\b/i, 'export'],
  [/\btaken? (it )?away\b|\btake \S+ away\b/i, 'delete, download'],
  [/\btake(n)? (it )?in\b(?! turn)/i, 'import'],
  [/\bbegin it again\b|\bstop making\b/i, 'restart, cancel'],
  [/\bgive up\b|\bgiven up\b/i, 'ungroup, cancel'],
  [/\bput there\b|\bput it on\b|\bbring (it|them) back\b/i, 'move here, apply, restore'],
  [/\bdeleted lately\b|\bchoose none\b/i, 'recently deleted, deselect all'],
  [/\bhand (key|value)s?\b/i, 'keyframe, set value'],
  [/\bits words there\b|\bwithdraw\b|\bhanded over before\b/i, 'label, revoke, shared links'],
  [/\bhangs? on\b/i, 'parent, child, depends on'],
  [/\bswitch(ed)? (off|on)\b/i, 'turn off'],
  [/\bmade by\b|\border of making\b/i, 'transform order'],
  [/\bskin between\b|\bapart in depth\b/i, 'join layers, layer spacing'],
  [/\beye and chance\b|\bset(s)? off on\b|\bstirred by\b|\bmay turn back\b/i, 'camera and seed, emit from, driven by'],
  [/\b(frames?|times) a second, own\b|\bas it is now\b|\bkept aside\b/i, 'custom, current'],
  [/\bsettle all\b|\bmoved along\b/i, 'reset tuning offsets, offset by tuning'],
  [/\bruled over\b|\ban? (upright|level) guide\b/i, 'guides, vertical, horizontal'],
  [/\blook through the lap\b|\bwhat (touches|leaves the stage)\b/i, 'loop seam, check the lap'],
  [/\bturn(ed)? round\b|\bone pixel to one\b|\blay out over lines\b/i, 'reverse, 100 %, format'],
  [/\bis called so\b|\bnothing fits\b|\bnothing is laid\b/i, 'no results'],
  [/\bclose(s|d)? (by symmetry|at the lap|from)\b|\bnot closing\b|\bdo(es)? not close\b/i, 'loop'],
  [/\bwhole swing\b|\bturns made\b|\bat the nib\b/i, 'range, turns, now'],
  [/\bsend no more\b|\blet the server send\b/i, 'stop sending'],
  [/\b(is|are) no (point|unit|word|pattern|number|piece)\b/i, 'isn’t a …'],
  [/\bthere is nothing named\b|\bis wanted\b|\bthe last good formula\b/i, 'unknown name, needs, previous formula'],
  [/\bshall\b|\bwhoever\b|\ball the same\b|\bfor ever\b/i, 'anyone, anyway, forever'],
]
/** Where formulas are mended, what people write elsewhere is read, not said; machines read the bare words of errors. */
const NOT_SAID = /respelling|reshaping|trade-words|made-up/

describe('the words', () => {
  const all = texts()
  it('are a good thousand, of every screen', () => {
    expect([...all.values()].flat().length).toBeGreaterThan(1500)
    expect(all.get('app/components/quay/MastHead.vue')).toEqual(expect.arrayContaining(['Export', 'Hand over', 'Undo']))
  })
  it('are those of the trade', () => {
    const odd = [...all].flatMap(([path, shown]) =>
      NOT_SAID.test(path)
        ? []
        : shown.flatMap(text =>
            WAYS.filter(([way]) => way.test(text)).map(([, better]) => `${path}: ${text} (${better})`),
          ),
    )
    expect(odd).toEqual([])
  })
})
