// `npm run attack`: hostile files and killed browsers; it takes a while.
import { spawnSync } from 'node:child_process'
import { prepare, root } from './prepare.mjs'

await prepare({ app: true })
const args = ['node_modules/tsx/dist/cli.mjs', 'attack/main.ts', ...process.argv.slice(2)]
const { status } = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit' })
process.exit(status ?? 1)
