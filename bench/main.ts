// `npm run bench`, from the project's folder: the rows of docs/performance.md, as a table and as JSON. With `in-step`, the one that takes ten minutes.
import { writeFileSync } from 'node:fs'
import { browserRows, playingRows } from './browser'
import { coreRows } from './core'
import { cutoutRows } from './matting/cutout-rows'
import { followRows } from './matting/follow-rows'
import { table } from './measure'
import { sizeRows } from './size'
import { terminalRows } from './terminal'

const long = process.argv[2] === 'in-step'
const rows = long
  ? await playingRows()
  : [
      ...(await coreRows()),
      ...(await cutoutRows()),
      ...(await followRows()),
      ...(await terminalRows()),
      ...(await browserRows()),
      ...sizeRows(),
    ]
writeFileSync(
  long ? 'bench/in-step.json' : 'bench/results.json',
  `${JSON.stringify({ node: process.version, rows }, null, 2)}\n`,
)
process.stdout.write(`${table(rows)}\n`)
process.exit(0)
