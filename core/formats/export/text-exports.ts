/** What is exported without drawing: worked out by the core alone, in a browser or at the prompt. */
import { strToU8 } from 'fflate'
import { Program } from '../../engine/program.ts'
import type { Piece } from '../../piece/schema.ts'
import { base64 } from '../base64.ts'
import type { ExportFormat } from './formats.ts'
import type { ExportPlan, ExportSettings } from './export-plan.ts'

export interface TextExportRequest {
  readonly piece: Piece
  readonly wanted: ExportSettings
}

/** What whoever runs it must be able to bring. */
export interface ExportSources {
  /** A picture by its hash; null when it is gone. */
  readonly picture: (hash: string) => Promise<{ type: string; bytes: Uint8Array } | null>
  /** The bundle that a page that runs begins with. */
  readonly runner: () => Promise<string>
  /** The SHA-256 of a text, in base 64. */
  readonly hash: (text: string) => Promise<string>
  /** Told how many frames are there. */
  readonly tell: (done: number) => void
}

type Bytes = Uint8Array<ArrayBuffer>
const utf8 = (text: string): Bytes => strToU8(text) as Bytes

type Pictures = Map<string, { type: string; bytes: Uint8Array }>

async function brought(piece: Piece, { picture }: Pick<ExportSources, 'picture'>): Promise<Pictures> {
  const { shownIn } = await import('../piece-file/piece-file.ts')
  const found: Pictures = new Map()
  for (const hash of shownIn(piece)) {
    const it = await picture(hash)
    if (it) found.set(hash, it)
  }
  return found
}

/** Addresses of a piece's pictures by their hash, which hold the pictures themselves. */
export async function addressesOf(piece: Piece, bring: Pick<ExportSources, 'picture'>): Promise<Map<string, string>> {
  const pictures = await brought(piece, bring)
  return new Map([...pictures].map(([hash, p]) => [hash, `data:${p.type};base64,${base64(p.bytes)}`]))
}

type Writing = (asked: TextExportRequest, plan: ExportPlan, bring: ExportSources) => Promise<Bytes>

const numbers =
  (as: 'csv' | 'json'): Writing =>
  async ({ piece }, plan, { tell }) => {
    const { numbersText } = await import('./numbers-text.ts')
    return utf8(numbersText(new Program(piece), as, plan.from, plan.rate, plan.frames, tell))
  }

const moving =
  (as: 'movingSvg' | 'keyframesPage'): Writing =>
  async ({ piece, wanted }, plan, bring) => {
    const print = (await import('../moving/printing.ts'))[as]
    const pictures = await addressesOf(piece, bring)
    return utf8(print({ piece, pictures, seeThrough: wanted.seeThrough, ...plan }, bring.tell))
  }

const running =
  (as: 'pageOf' | 'moduleOf'): Writing =>
  async ({ piece, wanted: { lent, controls } }, _plan, bring) => {
    const print = (await import('../running/running.ts'))[as]
    const pictures = await addressesOf(piece, bring)
    return utf8(await print(await bring.runner(), { piece, pictures, lent, controls }, bring.hash))
  }

const WRITING: Partial<Record<ExportFormat, Writing>> = {
  csv: numbers('csv'),
  json: numbers('json'),
  moving: moving('movingSvg'),
  css: moving('keyframesPage'),
  page: running('pageOf'),
  module: running('moduleOf'),
  async gltf({ piece }, plan, bring) {
    const { gltfOf } = await import('../gltf/gltf.ts')
    return gltfOf({ piece, pictures: await brought(piece, bring), ...plan }, bring.tell)
  },
  async wav({ piece, wanted }, { from, span, rate }, { tell }) {
    const { wavOf } = await import('../sound/wav.ts')
    const perFrame = wanted.sampleRate / (Number(rate.n) / Number(rate.d))
    const sounding = { drive: wanted.drive, copy: wanted.copy, from, span, rate: wanted.sampleRate }
    return wavOf(new Program(piece), sounding, n => tell(Math.floor(n / perFrame)))
  },
  async svg({ piece }, { from }, bring) {
    const { stillSvg } = await import('../svg.ts')
    return utf8(stillSvg(piece, from, await addressesOf(piece, bring)))
  },
  async piece({ piece }, _plan, bring) {
    const { packPiece } = await import('../piece-file/piece-file.ts')
    const pictures = new Map([...(await brought(piece, bring))].map(([hash, p]) => [hash, p.bytes]))
    return packPiece({ piece, pictures })
  },
}

/** The file; null for what must be drawn. @throws with a sentence when it cannot be made */
export async function exportWithoutDrawing(
  asked: TextExportRequest,
  plan: ExportPlan,
  bring: ExportSources,
): Promise<Bytes | null> {
  const writing = WRITING[asked.wanted.as]
  return writing ? writing(asked, plan, bring) : null
}
