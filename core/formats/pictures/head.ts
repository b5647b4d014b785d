/**
 * What the head of a picture file says: its kind and its size. Read from the bytes, whatever the file is called: PNG
 * (ISO/IEC 15948), JPEG (ITU-T T.81), WebP (RFC 9649).
 */
export interface Head {
  readonly type: 'image/png' | 'image/jpeg' | 'image/webp'
  readonly width: number
  readonly height: number
}

/** Bytes of a picture, most, and pixels to a side. */
export const LARGEST_PICTURE = 16 * 1024 * 1024
export const WIDEST = 8192

/** The head of a picture; a sentence when it is none that can be taken. */
export function headOf(bytes: Uint8Array): Head | { readonly says: string } {
  if (bytes.length > LARGEST_PICTURE) return { says: 'A picture can have up to 16 MB.' }
  const read = png(bytes) ?? jpeg(bytes) ?? webp(bytes)
  if (!read) return { says: 'This isn’t a PNG, JPEG or WebP picture, or it’s damaged.' }
  const { width, height } = read
  if (!(width > 0 && height > 0)) return { says: 'This picture has no size.' }
  if (width > WIDEST || height > WIDEST)
    return { says: `This picture is ${width} × ${height}; ${WIDEST} pixels per side is the limit.` }
  return read
}

const starts = (b: Uint8Array, at: number, text: string): boolean =>
  [...text].every((c, k) => b[at + k] === c.charCodeAt(0))
const big = (b: Uint8Array, at: number): number => b[at]! * 256 + b[at + 1]!
const little = (b: Uint8Array, at: number): number => b[at]! + b[at + 1]! * 256

function png(b: Uint8Array): Head | null {
  if (b.length < 33 || b[0] !== 0x89 || !starts(b, 1, 'PNG\r\n\x1a\n') || !starts(b, 12, 'IHDR')) return null
  const long = (at: number) => big(b, at) * 65536 + big(b, at + 2)
  return { type: 'image/png', width: long(16), height: long(20) }
}

/** Marks of a JPEG that tell its size: every start of frame. */
const isFrame = (mark: number): boolean =>
  mark >= 0xc0 && mark <= 0xcf && mark !== 0xc4 && mark !== 0xc8 && mark !== 0xcc

function jpeg(b: Uint8Array): Head | null {
  if (b.length < 12 || b[0] !== 0xff || b[1] !== 0xd8) return null
  for (let at = 2; at + 9 < b.length;) {
    if (b[at] !== 0xff) return null
    const mark = b[at + 1]!
    if (mark === 0xff) {
      at++
      continue
    }
    if (isFrame(mark)) return { type: 'image/jpeg', width: big(b, at + 7), height: big(b, at + 5) }
    const long = big(b, at + 2)
    if (long < 2) return null
    at += 2 + long
  }
  return null
}

function webp(b: Uint8Array): Head | null {
  if (b.length < 30 || !starts(b, 0, 'RIFF') || !starts(b, 8, 'WEBP')) return null
  const type = 'image/webp'
  if (starts(b, 12, 'VP8X')) {
    const size = (at: number) => little(b, at) + b[at + 2]! * 65536 + 1
    return { type, width: size(24), height: size(27) }
  }
  if (starts(b, 12, 'VP8L')) {
    const bits = little(b, 21) + little(b, 23) * 65536
    return { type, width: (bits & 0x3fff) + 1, height: ((bits >>> 14) & 0x3fff) + 1 }
  }
  if (starts(b, 12, 'VP8 ')) return { type, width: little(b, 26) & 0x3fff, height: little(b, 28) & 0x3fff }
  return null
}
