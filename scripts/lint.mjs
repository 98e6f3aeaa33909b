// `npm run lint`: format and lint rules, types, the arrow rule, unused exports; beside each other, what each says in order.
import { spawn } from 'node:child_process'
import { packages, root } from './prepare.mjs'

packages()

/** Runs a script of a package; gives its code and all that it says. */
function node(...args) {
  const child = spawn(process.execPath, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
  let said = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', data => (said += data))
  return new Promise(resolve => child.on('close', code => resolve({ code, said })))
}

const checks = [
  node('node_modules/@biomejs/biome/bin/biome', 'ci', '.'),
  node('node_modules/typescript/bin/tsc', '-p', '.'),
  node('node_modules/dependency-cruiser/bin/dependency-cruise.mjs', 'src', '--config', '.dependency-cruiser.cjs'),
  node('node_modules/knip/bin/knip.js'),
]
let isGood = true
for (const check of checks) {
  const { code, said } = await check
  process.stderr.write(said)
  isGood &&= code === 0
}
process.exit(isGood ? 0 : 1)
