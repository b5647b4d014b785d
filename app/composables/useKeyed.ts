/** What the keyed properties of a part hold at the moment that is shown. */
import { propertyKey } from '~~/core/piece/drive-key.ts'
import { propertiesOf, type Property } from '~~/core/piece/properties.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { sizeOfUnit } from '~~/core/units/units.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

/** Milliseconds between two looks while it plays. */
const BETWEEN = 100

/** @returns the value of a keyed property of the copy in hand in its display unit; undefined of one without keys */
export function useKeyed(part: () => string, copy: () => number) {
  const store = useOpenPiece()
  const held = shallowRef<Readonly<Record<string, number>>>({})
  const keyed = computed<readonly Property[]>(() => {
    const { parts, bases } = store.piece
    const shape = parts[part()]?.shape.type
    return shape ? propertiesOf(shape).filter(p => bases[propertyKey(part(), p.name)]?.keys) : []
  })
  let looked = -Infinity
  let stop = () => {}
  onMounted(() => {
    stop = store.player.watch(({ program, moment, playing }) => {
      if (keyed.value.length === 0 || (playing && performance.now() - looked < BETWEEN)) return
      looked = performance.now()
      const now: Record<string, number> = {}
      for (const p of keyed.value) {
        const forms = program.handForms(part(), p)
        const value = (forms[copy()] ?? forms[0]!).at(moment) / toNumber(sizeOfUnit(p.unit, program.measures))
        now[p.name] = Number(value.toFixed(4))
      }
      if (Object.keys(now).some(name => now[name] !== held.value[name])) held.value = now
    })
  })
  onBeforeUnmount(() => stop())
  // Another part or copy, or its first key, is read at once.
  watch([part, copy, keyed], () => {
    looked = -Infinity
    held.value = {}
    store.refresh()
  })
  return (p: Property): number | undefined => (keyed.value.includes(p) ? held.value[p.name] : undefined)
}
