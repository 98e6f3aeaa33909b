// Serves the app on the loopback address.
import { fileURLToPath } from 'node:url'
import { serve } from '@hono/node-server'
import type { Hono } from 'hono'
import { makeServer } from './app'
import { makeConversion } from './convert'

const conversion = makeConversion()

function listen(port: number, tries: number): void {
  const server = serve(
    { fetch: makeServer(conversion.app as unknown as Hono).fetch, hostname: '127.0.0.1', port },
    info => {
      process.stdout.write(`Jolly Ghost is open at http://127.0.0.1:${info.port}/\n`)
    },
  )
  server.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code === 'EADDRINUSE' && tries > 0) listen(port + 1, tries - 1)
    else {
      process.stderr.write(`The server cannot start: ${error.message}\n`)
      process.exit(1)
    }
  })
}

process.on('exit', conversion.end)
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => process.exit(0))
process.chdir(fileURLToPath(new URL('../../', import.meta.url)))
const asked = Number(process.env.PORT ?? 4141)
listen(asked, process.env.PORT ? 0 : 20)
