/** The camera of a glTF file: the stage just fills its picture. */
import type { Piece } from '../../piece/schema.ts'
import { atanTurns } from '../../signal/maths.ts'

/** From where the stage just fills the picture. */
export function eyeFor({ stage, camera }: Piece, scale: number): { camera: object; node: object } {
  const [w, h] = [stage.width / 2, stage.height / 2]
  if (!camera)
    return {
      camera: { type: 'orthographic', orthographic: { xmag: w * scale, ymag: h * scale, znear: 0.01, zfar: 1000 } },
      node: { name: 'Eye', camera: 0, translation: [0, 0, 5000] },
    }
  const { distance } = camera
  const perspective = { yfov: 2 * 2 * Math.PI * atanTurns(h, distance), aspectRatio: w / h, znear: 0.01, zfar: 10000 }
  return {
    camera: { type: 'perspective', perspective },
    node: { name: 'Eye', camera: 0, translation: [0, 0, distance] },
  }
}
