/** Drawings of chance in SVG: basic shapes, curves and arcs that cross themselves, lines, dashes, gradients, transforms. */
import { random } from './random.ts'

/** One drawing of 1280 × 720, the same from the same number. */
export function drawing(seed: number): string {
  const r = random(seed)
  const colour = () => `#${[0, 0, 0].map(() => (40 + r(200)).toString(16).padStart(2, '0')).join('')}`
  const point = () => `${r(240) - 20} ${r(160) - 20}`
  const half = () => (50 + r(100)) / 100
  let defs = ''
  let count = 0
  function paint(): string {
    if (r(4) > 0) return r(8) === 0 ? 'none' : colour()
    const id = `g${count++}`
    const stops = `<stop offset="0" stop-color="${colour()}"/><stop offset="${r(2) ? 1 : 0.7}" stop-color="${colour()}"${r(2) ? '' : ' stop-opacity="0.5"'}/>`
    defs += r(2)
      ? `<linearGradient id="${id}" x1="${r(100)}%" x2="${r(100)}%" y2="100%">${stops}</linearGradient>`
      : `<linearGradient id="${id}" gradientUnits="userSpaceOnUse" x1="0" y1="0" x2="${100 + r(200)}" y2="${r(100)}">${stops}</linearGradient>`
    return `url(#${id})`
  }
  const transform = () =>
    [
      '',
      `translate(${r(200) - 100} ${r(100) - 50})`,
      `rotate(${r(360)})`,
      `scale(${half()} ${half()})`,
      `rotate(${r(90)}, 50, 30)`,
      `skewX(${r(40)})`,
      'matrix(0.9 0.2 -0.3 1.1 20 10)',
    ][r(7)]!
  function look(): string {
    const line = `stroke="${r(2) ? colour() : 'none'}" stroke-width="${1 + r(12)}" stroke-miterlimit="8"`
    return [
      `fill="${paint()}" ${line}`,
      r(4) === 0 ? `stroke-dasharray="${8 + r(20)} ${6 + r(10)}"` : '',
      r(3) === 0 ? 'fill-rule="evenodd"' : '',
      r(3) === 0 ? `stroke-linejoin="${r(2) ? 'round' : 'bevel'}"` : '',
      r(3) === 0 ? `stroke-linecap="${r(2) ? 'round' : 'square'}"` : '',
      r(2) ? `transform="${transform()}"` : '',
    ].join(' ')
  }
  function shape(): string {
    const [x, y] = [r(60), r(60)]
    switch (r(8)) {
      case 0:
        return `<rect x="${x}" y="${y}" width="${40 + r(120)}" height="${30 + r(90)}" rx="${r(2) * r(20)}" ${look()}/>`
      case 1:
        return `<circle cx="${x}" cy="${y}" r="${10 + r(60)}" ${look()}/>`
      case 2:
        return `<ellipse cx="${x}" cy="${y}" rx="${10 + r(60)}" ry="${10 + r(40)}" ${look()}/>`
      case 3:
        return `<polygon points="${point()} ${point()} ${point()} ${point()}" ${look()}/>`
      case 4:
        return `<polyline points="${point()} ${point()} ${point()}" ${look()}/>`
      case 5:
        return `<path d="M${point()} C${point()} ${point()} ${point()} S${point()} ${point()}Z" ${look()}/>`
      case 6:
        return `<path d="M${point()} Q${point()} ${point()} T${point()} L${point()}z m30 10 h40 v30 h-40z" ${look()}/>`
      default:
        return `<path d="M${point()} a${30 + r(30)} ${20 + r(30)} ${r(90)} ${r(2)} ${r(2)} ${50 + r(50)} ${r(60)} l30 -40" ${look()}/>`
    }
  }
  let body = ''
  for (let k = 0; k < 6; k++) {
    const place = `translate(${80 + (k % 3) * 400} ${100 + Math.floor(k / 3) * 320})`
    body += `<g transform="${place} ${transform()}">${shape()}${shape()}</g>`
  }
  const size = 'viewBox="0 0 1280 720" width="1280" height="720"'
  return `<svg xmlns="http://www.w3.org/2000/svg" ${size}><defs>${defs}</defs>${body}</svg>`
}
