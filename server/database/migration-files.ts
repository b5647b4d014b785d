/** The migrations as they lie in the source, for what runs without the built server. */
import { readFileSync, readdirSync } from 'node:fs'
import type { Migrations } from './open'

export function migrationFiles(): Migrations {
  const root = new URL('./migrations/', import.meta.url)
  const files = (at: string): string[] =>
    readdirSync(new URL(at, root), { withFileTypes: true }).flatMap(f =>
      f.isDirectory() ? files(`${at}${f.name}/`) : [at + f.name],
    )
  return Object.fromEntries(files('./').map(f => [f.slice(2), readFileSync(new URL(f, root), 'utf8')]))
}
