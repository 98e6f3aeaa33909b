// `npm run lint`: format and lint rules, types, the arrow rule, unused exports.
import { prepare, root, run } from './prepare.mjs'

prepare({ kernels: true })
const node = (...args) => run(process.execPath, args, { cwd: root })
node('node_modules/@biomejs/biome/bin/biome', 'ci', '.')
node('node_modules/typescript/bin/tsc', '-p', '.')
node('node_modules/dependency-cruiser/bin/dependency-cruise.mjs', 'src', '--config', '.dependency-cruiser.cjs')
node('node_modules/knip/bin/knip.js')
