// What the first page loads, compressed.
import { readdirSync, readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import { atMost, type Row } from './measure'

const dist = 'dist/'

/** A script and all it imports at once, by file name. */
function closure(name: string, seen = new Set<string>()): Set<string> {
  if (seen.has(name)) return seen
  seen.add(name)
  const text = readFileSync(`${dist}assets/${name}`, 'utf8')
  for (const [, other] of text.matchAll(/(?:from|import)\s*["']\.\/([\w.-]+\.js)["']/g)) closure(other!, seen)
  return seen
}

export function sizeRows(): Row[] {
  const names = readdirSync(`${dist}assets`)
  const entry = /assets\/([\w.-]+\.js)/.exec(readFileSync(`${dist}index.html`, 'utf8'))![1]!
  const all = closure(entry)
  for (const name of names.filter(n => n.startsWith('ShotsPage'))) closure(name, all)
  const bytes = [...all].reduce((sum, name) => sum + gzipSync(readFileSync(`${dist}assets/${name}`)).length, 0)
  return [atMost('first route, compressed JavaScript', 350, bytes / 1000, 'kB', `${all.size} files`)]
}
