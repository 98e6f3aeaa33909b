import { beforeAll, describe, expect, it } from 'vitest'
import { makeServer } from './app'

let ask: (path: string, host?: string) => Promise<Response>
beforeAll(() => {
  const app = makeServer()
  ask = async (path, host = '127.0.0.1:4141') => app.request(path, { headers: { host } })
})

describe('the server', () => {
  it('isolates every page and says what it may load', async () => {
    const { headers, status } = await ask('/shot/anything')
    expect(status).toBe(200)
    expect(headers.get('cross-origin-opener-policy')).toBe('same-origin')
    expect(headers.get('cross-origin-embedder-policy')).toBe('require-corp')
    expect(headers.get('content-security-policy')).toMatch(/default-src 'self'.*object-src 'none'/)
  })

  it.each([
    ['localhost:4141', 200],
    ['[::1]:80', 200],
    ['127.0.0.1', 200],
    ['jolly.example', 421],
    ['127.0.0.1.example:4141', 421],
    ['', 421],
  ])('answers to its own name only: %s', async (host, status) => expect((await ask('/', host)).status).toBe(status))

  it('gives the app for a shot of any name', async () => expect((await ask('/shot/shot.v2')).status).toBe(200))

  it('brings the demo along: the list, the shots, the clips', async () => {
    const listed: { id: string; shot: object; trick: string }[] = await (await ask('/demo/index.json')).json()
    expect(listed.find(demo => demo.id === 'two-at-the-counter')?.trick).toContain('two takes')
    // What the list says of a shot is what the shot itself says.
    for (const { id, shot } of listed) {
      expect(await (await ask(`/demo/shots/${id}.json`)).json()).toMatchObject({
        format: 'jolly-ghost-project',
        id,
        shot,
      })
    }
    expect((await ask('/demo/clips/two-at-the-counter.glance.mp4')).headers.get('content-type')).toBe('video/mp4')
    const clip = await ask('/demo/clips/empty-shop.mp4')
    expect(clip.headers.get('content-type')).toBe('video/mp4')
    expect((await clip.arrayBuffer()).byteLength).toBeGreaterThan(1_000_000)
  })

  it.each([
    '/demo/shots/../../package.json',
    '/demo/shots/..%2f..%2fpackage.json',
    '/demo/clips/..%2f..%2fpackage.json',
    '/demo/clips/%2e%2e/%2e%2e/package.json',
    '/..%2fpackage.json',
    '/demo/shots/nobody.json',
    '/assets/nothing.js',
  ])('gives nothing away for %s', async path => {
    const answer = await ask(path)
    expect(answer.status).toBe(404)
    expect(await answer.text()).not.toContain('jolly-ghost')
  })
})
