// What the server answers: the built app, the demo, and conversions; nothing else.
import { existsSync } from 'node:fs'
import { readFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import { serveStatic } from '@hono/node-server/serve-static'
import { Hono } from 'hono'
import { secureHeaders } from 'hono/secure-headers'

const root = fileURLToPath(new URL('../../', import.meta.url))

/** What this machine calls itself. */
const OWN_HOSTS: ReadonlySet<string> = new Set(['127.0.0.1', 'localhost', '[::1]'])

const UNPACKS = /\/unpack-font\.worker-[\w-]+\.js$/
const UNPACKING = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval' 'unsafe-eval'; connect-src data:"

/** The app, the demo, and what converts footage, if that is given. Paths are taken from the project's folder, which must be the working directory. */
export function makeServer(conversion?: Hono): Hono {
  const app = new Hono()
  // A page of another host that resolves to this machine must not be able to ask anything here.
  app.use(async (c, next) => {
    const host = (c.req.header('host') ?? '').replace(/:\d+$/, '')
    return OWN_HOSTS.has(host) ? next() : c.text('This is not the host you asked for.', 421)
  })
  // What unpacks fonts makes its code as it goes: the thread that does nothing else may, and may ask for nothing.
  app.use('/assets/*', async (c, next) => {
    await next()
    if (UNPACKS.test(c.req.path)) c.res.headers.set('Content-Security-Policy', UNPACKING)
  })
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
  if (conversion) app.route('/convert', conversion)
  app.get('/demo/index.json', async c => c.json(JSON.parse(await readFile(`${root}demo/index.json`, 'utf8'))))
  app.get('/demo/shots/:name{[a-z0-9-]+\\.json}', async c => {
    const path = `${root}demo/shots/${c.req.param('name')}`
    return existsSync(path) ? c.json(JSON.parse(await readFile(path, 'utf8'))) : c.notFound()
  })
  app.use('/demo/clips/*', serveStatic({ root: '.', precompressed: false }))
  app.use('*', serveStatic({ root: 'dist' }))
  // Every other address is a place inside the app.
  app.get('*', async c =>
    /\.\w+$/.test(c.req.path) && !c.req.path.startsWith('/shot/')
      ? c.notFound()
      : c.html(await readFile(`${root}dist/index.html`, 'utf8')),
  )
  return app
}
