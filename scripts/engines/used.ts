/** The demo used in every browser engine: the built server behind a door that adds one script to the piece's page. */
import { createServer, request as ask } from 'node:http'
import type { AddressInfo } from 'node:net'
import { build } from 'esbuild'
import { clear, dataFolder, start, stop } from '../../tests/e2e/server.ts'
import type { Ends, Opens } from './browsers.ts'
import type { Used } from './hand.ts'

type Report = Omit<Used, 'steps'> & Partial<Pick<Used, 'steps'>>
/** Milliseconds that an engine may take for all of it. */
const PATIENCE = 8 * 60_000

/** @returns how many engines could not be used as they should */
export async function used(engines: Readonly<Record<string, Opens>>): Promise<number> {
  const bundle = await build({
    entryPoints: ['scripts/engines/hand.ts'],
    bundle: true,
    write: false,
    format: 'esm',
    logLevel: 'error',
  })
  const script = bundle.outputFiles[0]!.text
  let wrong = 0
  for (const [name, open] of Object.entries(engines)) {
    const folder = dataFolder()
    const tide = await start(folder)
    let tell: (r: Report) => void = () => {}
    const door = doorTo(tide.url, script, r => tell(r))
    await new Promise<void>(done => door.listen(0, '127.0.0.1', done))
    const url = `http://127.0.0.1:${(door.address() as AddressInfo).port}/piece/lantern-pier`
    const report = new Promise<Report>(done => {
      tell = done
      setTimeout(() => done({ engine: name, failed: 'no answer' }), PATIENCE).unref()
    })
    let end: Ends = () => undefined
    try {
      end = await open(url, says => tell({ engine: name, failed: says }))
      const { engine, steps, failed } = await report
      console.log(`${name} is used (${engine})`)
      for (const [what, came] of steps ?? []) console.log(`  ${what}: ${came}`)
      if (failed !== undefined) throw new Error(failed)
    } catch (e) {
      wrong++
      console.log(`${name}: ${(e as Error).message}`)
    } finally {
      end()
      door.close()
      door.closeAllConnections()
      await stop(tide)
      clear(folder)
    }
  }
  return wrong
}

/** Passes everything on; a page gets the script, and no policy that would refuse it. */
function doorTo(target: string, script: string, tell: (r: Report) => void) {
  const { host, origin } = new URL(target)
  return createServer((request, response) => {
    if (request.url === '/hand.js') return void response.setHeader('content-type', 'text/javascript').end(script)
    if (request.url === '/done') {
      const parts: Buffer[] = []
      request.on('data', d => parts.push(d as Buffer))
      request.on('end', () => {
        response.end('thanks')
        tell(JSON.parse(Buffer.concat(parts).toString()) as Report)
      })
      return
    }
    const headers: Record<string, string | string[] | undefined> = { ...request.headers, host }
    headers['accept-encoding'] = 'identity'
    if (headers.origin) headers.origin = origin
    if (headers.referer) headers.referer = `${origin}/`
    const onward = ask(`${target}${request.url}`, { method: request.method, headers }, answer => {
      const { 'content-security-policy': _, 'content-length': length, ...rest } = answer.headers
      const page = answer.headers['content-type']?.includes('text/html') ?? false
      response.writeHead(
        answer.statusCode!,
        page || length === undefined ? rest : { ...rest, 'content-length': length },
      )
      if (!page) return void answer.pipe(response)
      answer.pipe(response, { end: false })
      answer.on('end', () => response.end('<script type="module" src="/hand.js"></script>'))
    })
    onward.on('error', () => response.destroy())
    request.pipe(onward)
  })
}
