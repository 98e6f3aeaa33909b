// `npm run attack`: hostile files through the terminal and the interface, and browsers that are killed. Everything follows
// from a seed. `-- projects clips interface kills` chooses; `--seed 7 --share 0.1` for another or a shorter run.
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { encode } from 'fast-png'
import { parseProject } from '../src/core/door'
import type { Project, Take } from '../src/core/shot'
import { clipAttacks, filesOf } from './clips'
import { attackInterface } from './interface'
import { killBrowsers } from './kills'
import { projectAttacks } from './projects'
import { say } from './say'
import { attackTerminal, type Tally } from './terminal'

const demo = fileURLToPath(new URL('../demo/', import.meta.url))
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { seed: { type: 'string', default: '1' }, share: { type: 'string', default: '1' } },
})
const seed = Number(values.seed)
const counted = (count: number) => Math.max(1, Math.round(count * Number(values.share)))

/** A demo shot whose takes are small stills, so that a thousand files are packed in a minute. */
function smallProject(): { project: Project; media: Map<string, Uint8Array> } {
  const checked = parseProject(readFileSync(`${demo}shots/two-at-the-counter.json`, 'utf8'))
  if (!checked.ok) throw new Error(checked.problem)
  const media = new Map<string, Uint8Array>()
  const renamed = new Map<string, string>()
  const takes = checked.value.takes.map((take, i): Take => {
    const size = { width: 128, height: 72 }
    const data = new Uint8Array(size.width * size.height * 3).fill(60 + 40 * i)
    const bytes = encode({ ...size, data, channels: 3 })
    const digest = createHash('sha256').update(bytes).digest('hex')
    media.set(digest, bytes)
    renamed.set(take.digest, digest)
    const picture = { kind: 'still', size } as const
    return { ...take, digest, name: `still ${i}.png`, type: 'image/png', bytes: bytes.length, picture, sound: null }
  })
  const { shot } = checked.value
  const layers = shot.layers.map(layer => {
    const { source } = layer
    return source.kind === 'take' ? { ...layer, source: { ...source, digest: renamed.get(source.digest)! } } : layer
  })
  return { project: { ...checked.value, takes, shot: { ...shot, layers } }, media }
}

function tell(what: string, { read, refused, bounded, broken }: Tally): boolean {
  say(
    `${what}: ${read} read, ${refused} refused with a sentence, ${bounded} stopped at the bound, ${broken.length} broken`,
  )
  for (const line of broken) say(`  ${line}`)
  return broken.length === 0
}

const PARTS: Readonly<Record<string, () => Promise<boolean>>> = {
  async projects() {
    const { project, media } = smallProject()
    return tell('project files', await attackTerminal(projectAttacks(project, media, seed, counted(1000)), true))
  },
  async clips() {
    return tell('clips', await attackTerminal(clipAttacks(filesOf(`${demo}clips`), seed, counted(200)), false))
  },
  interface: () => attackInterface(smallProject(), filesOf(`${demo}clips`), seed, counted(50)),
  kills: () => killBrowsers(seed, counted(100)),
}

let isGood = true
for (const part of positionals.length > 0 ? positionals : Object.keys(PARTS)) {
  const run = PARTS[part]
  if (!run) throw new Error(`There is no attack “${part}”. There are ${Object.keys(PARTS).join(', ')}.`)
  isGood = (await run()) && isGood
}
process.exit(isGood ? 0 : 1)
