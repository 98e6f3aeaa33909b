// `npm run bench`: measures, against the table of docs/performance.md.

import { spawnSync } from 'node:child_process'
import { prepare, root, run } from './prepare.mjs'

await prepare({ app: true })
// A loader that translates as it goes would be measured too: it names every function anew each time that one is made.
const args = ['build', '--config', 'vite.bench.config.ts', '--logLevel', 'warn']
run(process.execPath, ['node_modules/vite/bin/vite.js', ...args])
const { status } = spawnSync(process.execPath, ['build/bench/main.js', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
})
process.exit(status ?? 1)
