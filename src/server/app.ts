// What the server answers: the built app and the demo, nothing else.
import { existsSync } from 'node:fs'
import { readdir, readFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import { serveStatic } from '@hono/node-server/serve-static'
import { Hono } from 'hono'
import { secureHeaders } from 'hono/secure-headers'

const root = fileURLToPath(new URL('../../', import.meta.url))

/** The demo shots by name, in the order they are to be seen. */
async function demoNames(): Promise<string[]> {
  const names = await readdir(`${root}demo/shots`)
  return names.filter(n => n.endsWith('.json')).map(n => n.slice(0, -5))
}

/** Paths are taken from the project's folder, which must be the working directory. */
export function makeServer(): Hono {
  const app = new Hono()
  app.use(
    secureHeaders({
      crossOriginOpenerPolicy: 'same-origin',
      crossOriginEmbedderPolicy: 'require-corp',
      crossOriginResourcePolicy: 'same-origin',
      contentSecurityPolicy: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'blob:', 'data:'],
        mediaSrc: ["'self'", 'blob:'],
        connectSrc: ["'self'", 'blob:', 'data:'],
        workerSrc: ["'self'", 'blob:'],
        fontSrc: ["'self'", 'data:'],
        objectSrc: ["'none'"],
        frameAncestors: ["'none'"],
        baseUri: ["'none'"],
      },
    }),
  )
  app.get('/demo/index.json', async c => c.json(await demoNames()))
  app.get('/demo/shots/:name{[a-z0-9-]+\\.json}', async c => {
    const path = `${root}demo/shots/${c.req.param('name')}`
    return existsSync(path) ? c.json(JSON.parse(await readFile(path, 'utf8'))) : c.notFound()
  })
  app.use('/demo/clips/*', serveStatic({ root: '.', precompressed: false }))
  app.use('*', serveStatic({ root: 'dist' }))
  // Every other address is a place inside the app.
  app.get('*', async c =>
    /\.\w+$/.test(c.req.path) ? c.notFound() : c.html(await readFile(`${root}dist/index.html`, 'utf8')),
  )
  return app
}
