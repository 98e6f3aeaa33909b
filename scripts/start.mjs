// `npm start`: installs and builds what is missing, then serves the app with its demo.
import { spawn } from 'node:child_process'
import { prepare, root } from './prepare.mjs'

await prepare({ app: true })
const server = spawn(process.execPath, ['build/node/server.js'], {
  cwd: root,
  stdio: 'inherit',
})
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal))
server.on('exit', code => process.exit(code ?? 0))
