// What must be there before anything runs: packages, kernels, the built app. Each is made only if it is missing or stale.
import { spawnSync } from 'node:child_process'
import { existsSync, readdirSync, statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = dirname(dirname(fileURLToPath(import.meta.url)))

/** Runs a command in the project's folder, its output on stderr; leaves with its code if it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: ['inherit', 2, 2], ...options })
  if (error) throw error
  if (status !== 0) process.exit(status ?? 1)
}

const time = path => (existsSync(path) ? statSync(path).mtimeMs : 0)

/** The latest change below some paths. */
function latest(paths) {
  return Math.max(
    ...paths.map(path => {
      const full = join(root, path)
      if (!existsSync(full)) return 0
      if (!statSync(full).isDirectory()) return time(full)
      return readdirSync(full, { recursive: true }).reduce((most, name) => Math.max(most, time(join(full, name))), 0)
    }),
  )
}

function packages() {
  const installed = join(root, 'node_modules/.package-lock.json')
  if (time(installed) >= time(join(root, 'package-lock.json'))) return
  console.error('Installing packages…')
  // Not `npm ci`: it insists on packages for other platforms, which a registry's mirror may lack.
  run('npm', ['install', '--no-save', '--no-audit', '--no-fund'])
}

function kernels() {
  if (time(join(root, 'build/kernels.wasm')) > latest(['src/kernels', 'asconfig.json'])) return
  console.error('Building the kernels…')
  run(process.execPath, [
    'node_modules/assemblyscript/bin/asc.js',
    'src/kernels/index.ts',
    '--config',
    'asconfig.json',
    '--target',
    'release',
  ])
}

function app() {
  const sources = ['src', 'index.html', 'vite.config.ts', 'package-lock.json', 'build/kernels.wasm']
  if (time(join(root, 'dist/index.html')) > latest(sources)) return
  console.error('Building the app…')
  run(process.execPath, ['node_modules/vite/bin/vite.js', 'build', '--logLevel', 'warn'])
}

function node() {
  const sources = ['src', 'vite.node.config.ts', 'package-lock.json']
  if (time(join(root, 'build/node/ghost.js')) > latest(sources)) return
  console.error('Building the terminal and the server…')
  const args = ['build', '--config', 'vite.node.config.ts', '--logLevel', 'warn']
  run(process.execPath, ['node_modules/vite/bin/vite.js', ...args])
}

/** Makes packages, kernels, terminal and server; the app where it is wanted. */
export function prepare(wanted = {}) {
  packages()
  kernels()
  node()
  if (wanted.app) app()
}
