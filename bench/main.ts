// `npm run bench`: the rows of docs/performance.md, as a table and as bench/results.json.
import { writeFileSync } from 'node:fs'
import { browserRows } from './browser'
import { coreRows } from './core'
import { table } from './measure'
import { sizeRows } from './size'

const rows = [...(await coreRows()), ...(await browserRows()), ...sizeRows()]
writeFileSync(
  new URL('./results.json', import.meta.url),
  `${JSON.stringify({ node: process.version, rows }, null, 2)}\n`,
)
process.stdout.write(`${table(rows)}\n`)
process.exit(0)
