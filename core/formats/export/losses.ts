/** What of a piece a format cannot carry, by name: said before it is exported. */
import { propertiesOf } from '../../piece/properties.ts'
import { SOLID } from '../../piece/property-kinds.ts'
import type { Part, Piece } from '../../piece/schema.ts'
import type { ExportFormat } from './formats.ts'

type Driven = (property: string) => boolean

const FORMS = ['corners', 'pose', 'innerRadius', 'value', 'lineStart', 'lineEnd', 'taper', 'strokeWidth', 'dashOffset']
const COLOURS = ['Lightness', 'Chroma', 'Hue', 'Alpha'].flatMap(c => [`fill${c}`, `stroke${c}`, `gradient${c}`])

/** What stays behind of a part, in words that follow its name; empty when nothing does. */
const BEHIND: Partial<Record<ExportFormat, (part: Part, driven: Driven, held: (p: string) => number) => string[]>> = {
  moving: drawing,
  css: drawing,
  gltf: (part, driven, held) => {
    const { type } = part.shape
    if (type === 'emitter' || type === 'trace' || type === 'waves') return ['is left out']
    return [
      ...(driven('opacity') || COLOURS.some(driven) ? ['keeps its first colour'] : []),
      ...(FORMS.some(driven) ? ['keeps its first shape'] : []),
      ...(held('gradient') > 0 ? ['has one colour instead of its gradient'] : []),
      ...(held('dash') > 0 ? ['has a solid line instead of dashes'] : []),
      ...(part.copies?.layout === 'layers' && !part.copies.apart ? ['has layers with separate sides'] : []),
    ]
  },
}

function drawing(part: Part, driven: Driven, held: (p: string) => number): string[] {
  const { type } = part.shape
  if (type === 'emitter') return ['doesn’t move between frames, and its particles don’t fade']
  if (type === 'trace') {
    const changes = held('tailWidth') !== 100 || held('tailFade') !== 0 || held('tailHue') !== 0
    return [
      'doesn’t move between frames',
      ...(changes ? ['has the same width, opacity and colour along its whole line'] : []),
    ]
  }
  if (SOLID.includes(type) && held('thickness') > 0) return ['has no extrusion']
  if (held('gradient') > 0) {
    if (driven('gradient') || COLOURS.some(driven) || driven('gradientTurn')) return ['keeps its first gradient']
  }
  return held('dash') > 0 && driven('dash') ? ['keeps its first dashes'] : []
}

/** Sentences, each beginning with the part's name. */
export function lossesOf(piece: Piece, as: ExportFormat): string[] {
  const behind = BEHIND[as]
  if (!behind) return []
  return Object.entries(piece.parts).flatMap(([id, part]) => {
    if (part.shape.type === 'group') return []
    const driven: Driven = name => {
      const drive = piece.drives[`${id}.${name}`]
      return drive !== undefined && !drive.off
    }
    const held = (name: string) =>
      driven(name)
        ? 1
        : (piece.bases[`${id}.${name}`]?.value ??
          Number(propertiesOf(part.shape.type).find(p => p.name === name)?.initial ?? 0))
    return behind(part, driven, held).map(says => `${part.name} ${says}.`)
  })
}
