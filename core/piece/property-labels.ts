/** What people call properties whose names in formulas are others; all else is called by its name. */
const LABELS: Readonly<Record<string, string>> = {
  rotationX: 'rotation x',
  rotationY: 'rotation y',
  scaleX: 'scale x',
  scaleY: 'scale y',
  scaleZ: 'scale z',
  corners: 'corner radius',
  innerRadius: 'inner radius',
  size: 'letter size',
  value: 'number shown',
  thickness: 'extrusion',
  swell: 'wave height',
  crest: 'sharp crests',
  gradient: 'amount',
  gradientTurn: 'direction',
  gradientStart: 'start',
  gradientEnd: 'end',
  strokeWidth: 'width',
  lineStart: 'line start',
  lineEnd: 'line end',
  dashGap: 'dash gap',
  dashOffset: 'dash offset',
  tailWidth: 'width at the end',
  tailFade: 'fade at the end',
  tailHue: 'hue at the end',
  births: 'birth rate',
  birthSize: 'emitter size',
  particle: 'particle size',
  particleEnd: 'size at the end',
  particleFade: 'fade',
}
const OF_A_COLOUR = /^(fill|gradient|stroke)(Hue|Lightness|Chroma|Alpha)$/
const COLOUR = { Hue: 'hue', Lightness: 'lightness', Chroma: 'chroma', Alpha: 'opacity' } as const
/** What a property belongs to, where its label alone would not tell. */
const OF = { fill: 'fill', gradient: 'gradient', stroke: 'stroke' } as const

/** @param whole under no heading that tells what it belongs to: `fill hue`, not `hue` */
export function propertyLabel(name: string, whole = false): string {
  const [, of, side] = OF_A_COLOUR.exec(name) ?? []
  const label = side ? COLOUR[side as keyof typeof COLOUR] : (LABELS[name] ?? name)
  if (!whole) return label
  const belongs = of ?? (name.startsWith('gradient') ? 'gradient' : name === 'strokeWidth' ? 'stroke' : undefined)
  return belongs && label !== belongs ? `${OF[belongs as keyof typeof OF]} ${label}` : label
}
