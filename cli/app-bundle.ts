/** Bundles what a page that runs by itself begins with, at build time and for the prompt. */
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** A room of the app as one script. @param globalName what it leaves behind */
export async function bundled(entry: string, globalName: string): Promise<string> {
  const made = await build({
    entryPoints: [here(`../${entry}`)],
    bundle: true,
    minify: true,
    write: false,
    format: 'iife',
    globalName,
    target: 'es2022',
    alias: { '~~': here('..'), '~': here('../app') },
    loader: { '.json': 'json' },
    logLevel: 'silent',
  })
  return made.outputFiles[0]!.text
}

/** The bundle of app/running, which leaves `OpenTide` behind. */
export const runnerText = (): Promise<string> => bundled('app/running/bundle.ts', 'OpenTide')
