#!/usr/bin/env node
// Runs the terminal program from its TypeScript source.
import { spawnSync } from 'node:child_process'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { prepare } from '../scripts/prepare.mjs'

const root = dirname(dirname(fileURLToPath(import.meta.url)))
prepare({ kernels: true })
const tsx = createRequire(import.meta.url).resolve('tsx/cli')
const { status } = spawnSync(process.execPath, [tsx, join(root, 'src/cli/main.ts'), ...process.argv.slice(2)], {
  stdio: 'inherit',
})
process.exit(status ?? 1)
