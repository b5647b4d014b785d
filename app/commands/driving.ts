/** First functions of time: what a starter writes on a property, with what it needs of the piece, in one undo step. */
import { propertyKey, splitDriveKey } from '~~/core/piece/drive-key.ts'
import { addDrive } from '~~/core/acts/drives.ts'
import { freeName } from '~~/core/acts/parts.ts'
import { readsHand } from '~~/core/acts/sources.ts'
import { setKeyPoints } from '~~/core/acts/points.ts'
import type { Starter } from '~~/core/acts/starters.ts'
import { addCue, addCurve } from '~~/core/acts/time-edits.ts'
import { labelFor } from '~~/core/formula/labels.ts'
import { quotedName } from '~~/core/formula/words.ts'
import { kindOfUnit } from '~~/core/formula/scope.ts'
import { initialOf, propertyNamed, type Property } from '~~/core/piece/properties.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { isPlain, sameKind } from '~~/core/units/kinds.ts'
import { sizeOfUnit } from '~~/core/units/units.ts'
import { focusFormula } from '~/editor/focus.ts'
import { useListing } from '../stores/listing.ts'
import { useOpenPiece } from '../stores/open-piece.ts'

const GESTURE = [
  { time: 0, value: 0, shape: 'smooth' },
  { time: 0.3, value: -0.2, shape: 'smooth' },
  { time: 0.5, value: 1, shape: 'smooth' },
  { time: 1, value: 0, shape: 'smooth' },
] as const

export function useDriving() {
  const store = useOpenPiece()
  const listing = useListing()

  /** A curve that fits a property and a cue, made where there are none. */
  function gesture(property: Property): string {
    const fits = Object.values(store.piece.curves).find(
      c => c.unit === '' || sameKind(kindOfUnit(c.unit), property.kind),
    )
    if (!fits)
      store.act(
        addCurve(store.piece, { name: freeName(store.piece, 'gesture'), hit: 0.5, channels: { value: [...GESTURE] } })
          .op,
      )
    const curve = fits ?? Object.values(store.piece.curves).at(-1)!
    if (Object.keys(store.piece.cues).length === 0) {
      const mark = Number((store.player.now().seconds + 1).toFixed(2))
      store.act(addCue(store.piece, { name: freeName(store.piece, 'cue'), marks: [mark] }).op)
    }
    const cue = Object.values(store.piece.cues)[0]!
    const played = `play(${quotedName(curve.name)}, ${quotedName(cue.name)})`
    return curve.unit === '' && !isPlain(property.kind)
      ? `base + ${played} * ${property.stride}${property.unit}`
      : `base + ${played}`
  }

  /** @param driver what is followed, where that is what it does */
  function textOf(starter: Starter, part: string, property: Property, driver: string): string {
    if (starter.needs === 'driver' && driver) return `base + ${labelFor(store.piece, driver, part)} * 0.5`
    return starter.needs === 'gesture' ? gesture(property) : starter.text(property)
  }

  /** Writes a starter on properties of a part: alike, or each with its own seed. */
  function begin(part: string, names: readonly string[], starter: Starter, driver = '', alike = false): void {
    store.beginGesture()
    const text = textOf(starter, part, propertyNamed(names[0]!)!, driver)
    names.forEach((name, i) => {
      const same = i > 0 && alike ? `base + (own.${names[0]!} - ${initialHand(part, names[0]!)})` : text
      store.act(addDrive(store.piece, part, name, same))
    })
    store.endGesture()
    const key = propertyKey(part, names[0]!)
    listing.reveal(key)
    store.player.play(true)
    void nextTick(() => focusFormula(key))
  }

  /** What a property holds by hand, with its unit, as it is written in a formula. */
  function initialHand(part: string, name: string): string {
    const property = propertyNamed(name)!
    const { shape } = store.piece.parts[part]!
    return `${store.piece.bases[propertyKey(part, name)]?.value ?? initialOf(property, shape.type)}${property.unit}`
  }

  /** A keyframe at the moment that is shown, at what the property holds there by hand. */
  function keyHere(key: string | null, value?: number): void {
    const [part, name] = splitDriveKey(key ?? '')
    const property = propertyNamed(name)
    if (!part || !property || !store.piece.parts[part]) {
      store.say('K sets a keyframe of the selected property. Select an entry of the tide table first.')
      return
    }
    const program = store.program
    const now = store.player.now()
    const held = program.handForms(part, property)[0]!.at(now) / toNumber(sizeOfUnit(property.unit, program.measures))
    const points = store.piece.bases[key!]?.keys?.points ?? []
    const time = Number(now.seconds.toFixed(4))
    const at = { time, value: value ?? Number(held.toFixed(4)), shape: 'smooth' as const }
    store.beginGesture()
    store.act(setKeyPoints(store.piece, part, property.name, [...points, at]))
    store.endGesture()
    const drive = store.piece.drives[key!]
    const reads = !drive || readsHand(drive.text)
    store.sayWithUndo(
      `A keyframe of ${property.name} at ${time} s.${reads ? '' : ' The formula doesn’t read it: write base + … to move on top of it.'}`,
    )
  }

  return { begin, keyHere }
}
