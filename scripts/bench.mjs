// `npm run bench`: measures, against the table of docs/performance.md.

import { spawnSync } from 'node:child_process'
import { prepare, root } from './prepare.mjs'

prepare({ app: true })
const { status } = spawnSync(
  process.execPath,
  ['node_modules/tsx/dist/cli.mjs', 'bench/main.ts', ...process.argv.slice(2)],
  {
    cwd: root,
    stdio: 'inherit',
  },
)
process.exit(status ?? 1)
