/** Drawings in pixels: only a page can make a picture of an SVG. */

/** A drawing in pixels. @throws when the browser can't read it */
export async function rasterized(svg: string, width: number, height: number): Promise<ImageBitmap> {
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
  try {
    const image = new Image(width, height)
    image.src = url
    await image.decode()
    const canvas = new OffscreenCanvas(width, height)
    canvas.getContext('2d')!.drawImage(image, 0, 0, width, height)
    return canvas.transferToImageBitmap()
  } finally {
    URL.revokeObjectURL(url)
  }
}
