// What must be there before anything runs: packages, kernels, the built app. Each is made only if it is missing or stale.
import { spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, readdirSync, statSync, writeFileSync } from 'node:fs'
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

export function packages() {
  const installed = join(root, 'node_modules/.package-lock.json')
  if (time(installed) >= time(join(root, 'package-lock.json'))) return
  console.error('Installing packages…')
  // Not `npm ci`: it insists on packages for other platforms, which a registry's mirror may lack.
  run('npm', ['install', '--no-save', '--no-audit', '--no-fund'])
}

/** Builds something where it is not there or its sources have changed since it was last built to its end. */
async function build(name, { words, sources, output, args }) {
  const stamp = join(root, 'build', `${name}.built`)
  if (existsSync(join(root, output)) && time(stamp) > latest(sources)) return
  console.error(`Building ${words}…`)
  const [code] = await once(spawn(process.execPath, args, { cwd: root, stdio: ['ignore', 2, 2] }), 'close')
  if (code !== 0) process.exit(code ?? 1)
  writeFileSync(stamp, '')
}

const VITE = 'node_modules/vite/bin/vite.js'

const kernels = () =>
  build('kernels', {
    words: 'the kernels',
    sources: ['src/kernels', 'asconfig.json'],
    output: 'build/kernels.wasm',
    args: [
      'node_modules/assemblyscript/bin/asc.js',
      'src/kernels/index.ts',
      '--config',
      'asconfig.json',
      '--target',
      'release',
    ],
  })

const app = () =>
  build('app', {
    words: 'the app',
    sources: ['src', 'index.html', 'vite.config.ts', 'package-lock.json', 'build/kernels.wasm'],
    output: 'dist/index.html',
    args: [VITE, 'build', '--logLevel', 'warn'],
  })

const node = () =>
  build('node', {
    words: 'the terminal and the server',
    sources: ['src', 'vite.node.config.ts', 'package-lock.json'],
    output: 'build/node/ghost.js',
    args: [VITE, 'build', '--config', 'vite.node.config.ts', '--logLevel', 'warn'],
  })

/** Makes packages, kernels, terminal and server; the app where it is wanted. */
export async function prepare(wanted = {}) {
  packages()
  const compiled = kernels()
  await Promise.all([node(), wanted.app ? compiled.then(app) : compiled])
}
