/** What is found by a word: every command and setting with the trade's words for it, functions, properties, topics. */
import { isRuled, rule } from '~~/core/acts/guides.ts'
import { FUNCTIONS } from '~~/core/functions/index.ts'
import { callSignature } from '~~/core/manual/manual.ts'
import type { Searched } from '~~/core/manual/matching.ts'
import { topics } from '~~/core/manual/search.ts'
import { COMMAND_WORDS, FUNCTION_WORDS, PROPERTY_WORDS, type Command } from '~~/core/manual/trade-words.ts'
import { PROPERTIES, propertiesOf } from '~~/core/piece/properties.ts'
import { reveal, revealInManual } from '~/editor/reveal.ts'
import { useClip } from '~/commands/clip.ts'
import { useCommon } from '~/commands/common.ts'
import type { DeskPage } from '~/stores/desk.ts'
import { useDriving } from '~/commands/driving.ts'
import { useSelection } from '~/stores/selection.ts'
import { usePiece } from '~/stores/piece.ts'
import { useSeveral } from '~/commands/several.ts'
import { useTakes } from '~/commands/takes.ts'
import { useTiming } from '~/commands/timing.ts'

export interface Found extends Searched {
  readonly kind: string
  readonly key?: string
  readonly go: () => void
}

const DESK = '[aria-label="Desk"]'

export function useFinding() {
  const store = usePiece()
  const hand = useSelection()
  const common = useCommon()
  const timing = useTiming()
  const takes = useTakes()
  const clip = useClip()
  const driving = useDriving()
  const several = useSeveral()
  const { turn } = useTheme()

  /** A control of a page of the desk. */
  const at = (page: DeskPage, name: string) => () => {
    hand.desk = page
    reveal(name, DESK)
  }
  /** One of the selected part; without one it is said so. */
  const ofPart = (name: string) => () => {
    if (hand.part === null) store.notice = { says: 'Select a part first, on the stage or in the tide table.' }
    else at('part', name)()
  }
  const parts = () => {
    hand.choose(null)
    hand.desk = 'part'
    reveal('All parts', DESK)
  }
  const manual = (anchor: string) => () => {
    hand.manual = true
    revealInManual(anchor)
  }
  const ruled = (what: 'guides' | 'rulers' | 'grid') => () =>
    store.act(rule(store.piece!, what, !isRuled(store.piece!, what)))

  const DO: Record<Command, readonly [go: () => void, key?: string]> = {
    'Play or pause': [() => store.player!.play(!store.player!.playing), 'Space'],
    'Back to time 0': [() => store.player!.goto({ n: 0n, d: 1n }), '0'],
    'Go to a time': [() => document.querySelector<HTMLElement>('[aria-label^="Current time"]')?.click()],
    'Playback speed': [() => reveal('Pace')],
    'Play backwards': [() => reveal('Backwards')],
    'Play every frame': [() => reveal('Play every frame')],
    'Mark the cue here': [timing.cueHere, 'C'],
    'Start the stretch here': [() => timing.endHere(true), '['],
    'End the stretch here': [() => timing.endHere(false), ']'],
    'Solo the selected part, or show everything again': [
      () => (hand.solo = hand.solo === null ? hand.part : null),
      'A',
    ],
    'Set a keyframe here': [() => driving.keyHere(hand.drive), 'K'],
    'Keep a take of the selected formula': [() => takes.keep(hand.drive), 'T'],
    'Previous take': [() => takes.before(hand.drive), 'Y'],
    'Copy the selected formula': [clip.copy, 'Ctrl C'],
    'Paste it on the selected part': [clip.paste, 'Ctrl V'],
    Patterns: [() => (hand.patterns = true), 'P'],
    Undo: [store.undo, 'Ctrl Z'],
    Redo: [store.redo, 'Ctrl Shift Z'],
    'Keyboard shortcuts': [() => (hand.dialog = 'keys'), '?'],
    'Open the manual beside the piece': [() => (hand.manual = true), 'F1'],
    'Export…': [() => (hand.dialog = 'export')],
    'Hand over…': [() => (hand.dialog = 'hand over')],
    'Version history…': [() => (hand.dialog = 'versions')],
    'Import a table…': [() => (hand.dialog = 'table')],
    'Save now': [() => void store.saveNow(), 'Ctrl S'],
    Harbour: [() => void navigateTo('/')],
    'Rename the piece': [() => document.querySelector<HTMLElement>('header [data-tip="Rename"]')?.click()],
    'Add a part…': [parts],
    'Import artwork or pictures…': [parts],
    'Draw a path': [() => (hand.pen = true)],
    'Parts list': [parts],
    'Duplicate the selected part': [ofPart('Duplicate')],
    'Delete the selected part': [ofPart('Delete')],
    'Group the selected parts': [several.gather, 'Ctrl G'],
    'Desk: Scope': [() => (hand.desk = 'scope')],
    'Desk: Part': [() => (hand.desk = 'part')],
    'Desk: Links': [() => (hand.desk = 'links')],
    'Loop: the Lap page': [() => (hand.desk = 'lap')],
    'Desk: Piece': [() => (hand.desk = 'piece')],
    'Lap length': [at('lap', 'Length of the lap, seconds')],
    'Start of the lap': [at('lap', 'Start of the lap, seconds')],
    'Seam at the loop point': [at('lap', 'Loop seam')],
    'Stage size': [at('piece', 'Size of the stage')],
    'Frame rate': [at('piece', 'Frame rate')],
    Background: [at('piece', 'Background, colour')],
    'In depth': [at('piece', 'In depth')],
    'Camera distance': [at('piece', store.piece!.camera ? 'Camera distance' : 'In depth')],
    'Look around': [() => (store.piece!.camera ? reveal('Look around') : at('piece', 'In depth')())],
    'Seed of new drives': [at('piece', 'Seed of new drives')],
    'Poster frame': [at('piece', 'Poster frame')],
    'Reset tuning offsets': [at('piece', 'Reset tuning offsets')],
    'Smooth tuning': [() => reveal('Smooth tuning')],
    Guides: [ruled('guides')],
    Rulers: [ruled('rulers')],
    Grid: [ruled('grid')],
    Overlaps: [at('lap', 'Overlaps')],
    'Off-stage parts': [at('lap', 'Off-stage parts')],
    'Cost per frame': [at('piece', 'Cost per frame')],
    'Motion path': [() => (hand.path = !hand.path)],
    'Links on the stage': [() => (hand.threads = !hand.threads)],
    'Fit the stage': [() => document.querySelector<HTMLElement>('[aria-label="fit the stage"]')?.click()],
    'Actual size': [() => document.querySelector<HTMLElement>('[data-tip^="Actual size"]')?.click()],
    'Align the selected parts': [
      () =>
        hand.others.length > 0
          ? at('part', 'Align')()
          : (store.notice = { says: 'Select several parts first: Shift-click them on the stage.' }),
    ],
    Pivot: [ofPart('Place of the pivot')],
    Copies: [ofPart('Copies')],
    Span: [ofPart('has a span')],
    'Drive a property…': [
      () => {
        const part = hand.part ?? Object.keys(store.piece!.parts)[0]
        if (part === undefined) store.notice = { says: 'Add a part first, then press Drive… beside its name.' }
        else document.querySelector<HTMLElement>(`[data-head="${part}"] [data-driving]`)?.click()
      },
    ],
    'New dial': [() => reveal('New dial')],
    'New signal': [() => common.make('signal')],
    'New cue': [() => common.make('cue')],
    'New clock': [() => common.make('clock')],
    'New curve': [() => common.make('curve')],
    'Dark or light theme': [turn],
  }

  const commands = (Object.keys(COMMAND_WORDS) as Command[]).map((name): Found => {
    const [go, key] = DO[name]
    return { name, also: COMMAND_WORDS[name], kind: 'command', ...(key !== undefined && { key }), go }
  })

  /** On the Part page, where the selected part has it; else in the manual. */
  const property = (name: string) => () => {
    const part = hand.part === null ? undefined : store.piece!.parts[hand.part]
    if (part && propertiesOf(part.shape.type).some(p => p.name === name)) at('part', name)()
    else manual('properties')()
  }
  const known: readonly Found[] = [
    ...PROPERTIES.map(p => ({
      name: p.name,
      also: PROPERTY_WORDS[p.name] ?? '',
      says: p.description,
      kind: 'property',
      go: property(p.name),
    })),
    ...FUNCTIONS.map(f => ({
      name: f.name,
      also: FUNCTION_WORDS[f.name] ?? '',
      says: f.description,
      key: callSignature(f).slice(f.name.length),
      kind: 'function',
      go: manual(`fn-${f.name}`),
    })),
    ...topics().map(t => ({ name: t.title, says: t.says, kind: 'manual', go: manual(t.anchor) })),
  ]
  return { commands, known }
}
