/** What of the GIF writer is used here; it ships without types. */
declare module 'gifenc' {
  type Palette = number[][]
  interface Frame {
    readonly palette?: Palette
    /** Milliseconds. */
    readonly delay?: number
    readonly transparent?: boolean
    readonly transparentIndex?: number
    readonly dispose?: number
  }
  export function GIFEncoder(): {
    writeFrame(indices: Uint8Array, width: number, height: number, frame: Frame): void
    finish(): void
    bytes(): Uint8Array<ArrayBuffer>
    readonly stream: { reset(): void }
  }
  export function quantize(
    pixels: Uint8ClampedArray,
    most: number,
    how: { readonly format: string; readonly oneBitAlpha?: boolean },
  ): Palette
  export function applyPalette(pixels: Uint8ClampedArray, palette: Palette, format: string): Uint8Array
}
