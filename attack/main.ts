// `npm run attack`: hostile files through the terminal and the interface, and browsers that are killed. Everything follows
// from a seed. `-- projects clips interface kills` chooses; `--seed 7 --share 0.1` for another or a shorter run.
import { fileURLToPath } from 'node:url'
import { parseArgs } from 'node:util'
import { clipAttacks, filesOf } from './clips'
import { attackInterface } from './interface'
import { killBrowsers } from './kills'
import { projectAttacks } from './projects'
import { say } from './say'
import { DRAWING, smallProject } from './small'
import { attackTerminal, type Tally } from './terminal'

const demo = fileURLToPath(new URL('../demo/', import.meta.url))
const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { seed: { type: 'string', default: '1' }, share: { type: 'string', default: '1' } },
})
const seed = Number(values.seed)
const counted = (count: number) => Math.max(1, Math.round(count * Number(values.share)))

/** Real files to be damaged: clips, a font, a drawing. */
const sources = () => [...filesOf(`${demo}clips`), { name: 'drawing.svg', data: Buffer.from(DRAWING) }]

function tell(what: string, { read, refused, bounded, broken }: Tally): boolean {
  say(
    `${what}: ${read} read, ${refused} refused with a sentence, ${bounded} stopped at the bound, ${broken.length} broken`,
  )
  for (const line of broken) say(`  ${line}`)
  return broken.length === 0
}

const PARTS: Readonly<Record<string, () => Promise<boolean>>> = {
  async projects() {
    const { project, media } = smallProject(demo)
    return tell('project files', await attackTerminal(projectAttacks(project, media, seed, counted(1000)), true))
  },
  async clips() {
    return tell('clips', await attackTerminal(clipAttacks(sources(), seed, counted(200)), false))
  },
  interface: () => attackInterface(smallProject(demo), sources(), seed, counted(50)),
  kills: () => killBrowsers(seed, counted(100)),
}

let isGood = true
for (const part of positionals.length > 0 ? positionals : Object.keys(PARTS)) {
  const run = PARTS[part]
  if (!run) throw new Error(`There is no attack “${part}”. There are ${Object.keys(PARTS).join(', ')}.`)
  isGood = (await run()) && isGood
}
process.exit(isGood ? 0 : 1)
