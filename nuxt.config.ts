import { mkdirSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import { build as bundle } from 'esbuild'
import { runnerText } from './cli/app-bundle.ts'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))
/** Files that the build generates and serves along with `public/`. */
const MADE = here('./.nuxt/made')

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  srcDir: 'app',
  ssr: false,
  hooks: {
    // What a page that runs by itself begins with lies ready to be fetched.
    'build:before': async () => {
      mkdirSync(MADE, { recursive: true })
      writeFileSync(`${MADE}/runner-bundle.txt`, await runnerText())
    },
    // The page of all controls is for those who work on them.
    'pages:extend': pages => {
      if (process.env.NODE_ENV === 'production')
        pages.splice(0, pages.length, ...pages.filter(p => p.path !== '/controls'))
    },
    // While working on it, the server of pages asks for an entry of its own, though there is only the page's.
    'vite:extendConfig': config => {
      const input = config.build?.rollupOptions?.input
      if (process.env.NODE_ENV !== 'production' && typeof input === 'object' && !Array.isArray(input))
        input.server ??= input.entry!
    },
    // Nothing is fetched before it is needed: the quay's chunks not while the harbour is looked at.
    'build:manifest': manifest => {
      for (const chunk of Object.values(manifest)) chunk.prefetch = false
    },
  },
  // What a link leads to is fetched when the hand is on it, not when it comes into view.
  experimental: { defaults: { nuxtLink: { prefetchOn: { visibility: false, interaction: true } } } },
  telemetry: false,
  devtools: { enabled: false },
  modules: ['@pinia/nuxt'],
  components: [{ path: '~/components', pathPrefix: false }],
  css: [
    '@fontsource/spline-sans/400.css',
    '@fontsource/spline-sans/500.css',
    '@fontsource/spline-sans/600.css',
    '@fontsource/spline-sans-mono/400.css',
    '@fontsource/spline-sans-mono/500.css',
    '~/assets/main.css',
    '~/assets/editor.css',
  ],
  app: {
    head: {
      title: 'Open Tide',
      htmlAttrs: { lang: 'en' },
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' }],
    },
  },
  vite: {
    plugins: [tailwindcss()],
    worker: { format: 'es' },
    build: { chunkSizeWarningLimit: 1200 },
  },
  nitro: {
    compressPublicAssets: { gzip: true, brotli: true },
    publicAssets: [{ dir: MADE, baseURL: '/' }],
    // The same headers on every answer, files included.
    routeRules: {
      '/**': {
        headers: {
          'x-content-type-options': 'nosniff',
          'referrer-policy': 'no-referrer',
          'cross-origin-opener-policy': 'same-origin',
          'cross-origin-resource-policy': 'same-origin',
        },
      },
    },
    hooks: {
      // The workers that draw stills and read large bodies are programs of their own beside the server.
      compiled: async nitro => {
        for (const [worker, file] of [
          ['stills', 'still'],
          ['reading', 'reading'],
        ] as const)
          await bundle({
            entryPoints: [here(`./server/${worker}/worker.ts`)],
            outfile: `${nitro.options.output.serverDir}/${file}.mjs`,
            bundle: true,
            platform: 'node',
            format: 'esm',
            logLevel: 'warning',
          })
      },
    },
    typescript: { tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true, allowImportingTsExtensions: true } } },
    serverAssets: [
      { baseName: 'migrations', dir: here('./server/database/migrations') },
      { baseName: 'demo', dir: here('./demo'), pattern: '*.json' },
    ],
  },
  typescript: {
    strict: true,
    tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true, allowImportingTsExtensions: true } },
    nodeTsConfig: { compilerOptions: { allowImportingTsExtensions: true } },
    sharedTsConfig: { compilerOptions: { allowImportingTsExtensions: true } },
  },
})
