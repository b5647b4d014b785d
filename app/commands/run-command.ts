/** What each command does. Their names, search words and keys are in `core/manual/commands.ts`. */
import { isRuled, rule } from '~~/core/acts/guides.ts'
import { partsListed } from '~~/core/acts/parenting.ts'
import type { Command } from '~~/core/manual/commands.ts'
import { reveal } from '~/editor/reveal.ts'
import { DESK as PAGES, type DeskPage } from '../stores/desk.ts'
import { useListing } from '../stores/listing.ts'
import { useOpenPiece } from '../stores/open-piece.ts'
import { useSelection } from '../stores/selection.ts'
import { useClip } from './clip.ts'
import { useCommon } from './common.ts'
import { useDriving } from './driving.ts'
import { useSingleKeys } from './keys.ts'
import { useSeveral } from './several.ts'
import { useTakes } from './takes.ts'
import { targetNamed } from './targets.ts'
import { useTiming } from './timing.ts'

/** A command with a condition. While it isn't met, its key is left to other listeners, and the search explains why. */
interface Run {
  readonly go: () => void
  readonly can: () => boolean
  readonly otherwise: string
}

const DESK = '[aria-label="Desk"]'
const SELECT_ONE = 'Select a part first, on the stage or in the tide table.'

export function useCommands() {
  const store = useOpenPiece()
  const hand = useSelection()
  const listing = useListing()
  const common = useCommon()
  const timing = useTiming()
  const takes = useTakes()
  const clip = useClip()
  const driving = useDriving()
  const several = useSeveral()
  const single = useSingleKeys()
  const { turn } = useTheme()

  /** Opens a page of the desk and focuses one of its controls. */
  const at = (page: DeskPage, name: string) => () => {
    hand.desk = page
    reveal(name, DESK)
  }
  const isChosen = () => hand.part !== null
  /** A command that needs a selected part. */
  const ofChosen = (go: () => void): Run => ({ go, can: isChosen, otherwise: SELECT_ONE })
  const firstInside = () => partsListed(store.piece).find(l => store.piece.parts[l.id]!.parent === hand.part)?.id
  const parts = () => {
    hand.choose(null)
    hand.desk = 'part'
    reveal('All parts', DESK)
  }
  const ruled = (what: 'guides' | 'rulers' | 'grid') => () =>
    store.act(rule(store.piece, what, !isRuled(store.piece, what)))

  const ofScope = (go: () => void): Run => ({
    go,
    can: () => targetNamed('scope') !== undefined,
    otherwise: 'Open the scope of a formula first.',
  })

  const RUN: Readonly<Record<Command, Run | (() => void)>> = {
    'Find anything': () => targetNamed('search')?.open(),
    'Play or pause': () => store.player.play(!store.player.playing),
    'Back to time 0': () => store.player.goto({ n: 0n, d: 1n }),
    'One frame back': () => store.player.stepFrames(-1),
    'One frame forward': () => store.player.stepFrames(1),
    'One second back': () => store.player.move(-1),
    'One second forward': () => store.player.move(1),
    'Go to a time': () => document.querySelector<HTMLElement>('[aria-label^="Current time"]')?.click(),
    'Playback speed': () => reveal('Pace'),
    'Play backwards': () => reveal('Backwards'),
    'Play every frame': () => reveal('Play every frame'),
    'Mark the cue here': timing.cueHere,
    'Start the stretch here': () => timing.endHere(true),
    'End the stretch here': () => timing.endHere(false),
    'Solo the selected part, or show everything again': () => (hand.solo = hand.solo === null ? hand.part : null),
    'Previous entry': () => listing.step(-1),
    'Next entry': () => listing.step(1),
    'Edit the selected formula': () => targetNamed('table')?.write(),
    'Set a keyframe here': () => driving.keyHere(hand.drive),
    'Keep a take of the selected formula': () => takes.keep(hand.drive),
    'Previous take': () => takes.before(hand.drive),
    'Copy the selected formula': clip.copy,
    'Paste it on the selected part': clip.paste,
    Patterns: () => (hand.patterns = true),
    Undo: store.undo,
    Redo: store.redo,
    'Keyboard shortcuts': () => (hand.dialog = 'keys'),
    'Single-key shortcuts': () => {
      single.value = !single.value
      store.say(`Single-key shortcuts are ${single.value ? 'on' : 'off. Ctrl K still finds anything'}.`)
    },
    'Open or close the manual': () => (hand.manual = !hand.manual),
    'Export…': () => (hand.dialog = 'export'),
    'Hand over…': () => (hand.dialog = 'hand over'),
    'Version history…': () => (hand.dialog = 'versions'),
    'Import a table…': () => (hand.dialog = 'table'),
    'Save now': () => void store.saveNow(),
    Harbour: () => void navigateTo('/'),
    'Rename the piece': () => document.querySelector<HTMLElement>('header [data-tip="Rename"]')?.click(),
    'Add a part…': parts,
    'Import artwork or pictures…': parts,
    'Draw a path': () => (hand.pen = true),
    'Parts list': parts,
    'Duplicate the selected part': ofChosen(several.double),
    'Delete the selected part': ofChosen(several.remove),
    'Group the selected parts': ofChosen(several.gather),
    'Copy the selected parts': ofChosen(clip.copyParts),
    'Paste parts': clip.pasteParts,
    'Select all parts': () => {
      const { parts } = store.piece
      hand.chooseAll(Object.keys(parts).filter(id => parts[id]!.parent === null && !parts[id]!.locked))
    },
    'Enter the selected group': {
      go: () => hand.choose(firstInside()!),
      can: () => isChosen() && firstInside() !== undefined,
      otherwise: 'Select a group first.',
    },
    'Leave the group, or select nothing': () =>
      hand.choose(hand.part === null ? null : (store.piece.parts[hand.part]?.parent ?? null)),
    'Desk: Scope': () => (hand.desk = 'scope'),
    'Fit the curve': ofScope(() => targetNamed('scope')!.fit()),
    'Curve before the change': ofScope(() => targetNamed('scope')!.ghost()),
    'Desk: Part': () => (hand.desk = 'part'),
    'Desk: Links': () => (hand.desk = 'links'),
    'Loop: the Lap page': () => (hand.desk = 'lap'),
    'Desk: Piece': () => (hand.desk = 'piece'),
    'Next page of the desk': () => {
      const at = PAGES.findIndex(p => p.is === hand.desk)
      hand.desk = PAGES[(at + 1) % PAGES.length]!.is
    },
    'Lap length': at('lap', 'Length of the lap, seconds'),
    'Start of the lap': at('lap', 'Start of the lap, seconds'),
    'Seam at the loop point': at('lap', 'Loop seam'),
    'Stage size': at('piece', 'Size of the stage'),
    'Frame rate': at('piece', 'Frame rate'),
    Background: at('piece', 'Background, colour'),
    'In depth': at('piece', 'In depth'),
    'Camera distance': () => at('piece', store.piece.camera ? 'Camera distance' : 'In depth')(),
    'Look around': () => (store.piece.camera ? reveal('Look around') : at('piece', 'In depth')()),
    'Seed of new drives': at('piece', 'Seed of new drives'),
    'Poster frame': at('piece', 'Poster frame'),
    'Reset tuning offsets': at('piece', 'Reset tuning offsets'),
    'Smooth tuning': () => reveal('Smooth tuning'),
    Guides: ruled('guides'),
    Rulers: ruled('rulers'),
    Grid: ruled('grid'),
    Overlaps: at('lap', 'Overlaps'),
    'Off-stage parts': at('lap', 'Off-stage parts'),
    'Cost per frame': at('piece', 'Cost per frame'),
    'Motion path': () => (hand.path = !hand.path),
    'Links on the stage': () => (hand.threads = !hand.threads),
    'Fit the stage': () => targetNamed('stage')?.fit(),
    'Zoom in': () => targetNamed('stage')?.zoomBy(1.25),
    'Zoom out': () => targetNamed('stage')?.zoomBy(0.8),
    'Actual size': () => targetNamed('stage')?.actualSize(),
    'Reset the view': () => targetNamed('stage')?.lookStraight(),
    'Align the selected parts': {
      go: at('part', 'Align'),
      can: () => hand.others.length > 0,
      otherwise: 'Select several parts first: Shift-click them on the stage.',
    },
    Pivot: ofChosen(at('part', 'Place of the pivot')),
    Copies: ofChosen(at('part', 'Copies')),
    Span: ofChosen(at('part', 'has a span')),
    'Drive a property…': {
      go: () => {
        const part = hand.part ?? Object.keys(store.piece.parts)[0]!
        document.querySelector<HTMLElement>(`[data-head="${part}"] [data-driving]`)?.click()
      },
      can: () => Object.keys(store.piece.parts).length > 0,
      otherwise: 'Add a part first, then press Drive… beside its name.',
    },
    'New dial': () => reveal('New dial'),
    'New signal': () => common.make('signal'),
    'New cue': () => common.make('cue'),
    'New clock': () => common.make('clock'),
    'New curve': () => common.make('curve'),
    'Dark or light theme': turn,
  }

  const canRun = (name: Command): boolean => {
    const run = RUN[name]
    return typeof run === 'function' || run.can()
  }
  /** Runs a command, or explains why it can't run now. */
  function runCommand(name: Command): void {
    const run = RUN[name]
    if (typeof run === 'function') run()
    else if (run.can()) run.go()
    else store.say(run.otherwise)
  }
  return { canRun, runCommand }
}
