// The conversion as a page asks for it: in pieces, stopped, too large, too many, from elsewhere.
import { readdirSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { temporaryFolder } from '../testing/clips'
import { foreignFilm } from '../testing/foreign'
import { makeConversion } from './convert'

const conversion = makeConversion()
const ours = { 'x-jolly-ghost': '1' }
const ask = (path: string, options: RequestInit = {}) =>
  conversion.app.request(path, { ...options, headers: { ...ours, ...options.headers } })
const folders = () => readdirSync(tmpdir()).filter(n => n.startsWith('jolly-ghost-convert-'))
const order = async (name: string, bytes: number) => ask('/', { method: 'POST', body: JSON.stringify({ name, bytes }) })
const piece = (id: string, at: number, body: Uint8Array<ArrayBuffer>) =>
  ask(`/${id}/piece?at=${at}`, { method: 'PUT', body, headers: { 'content-length': String(body.length) } })

let film: Uint8Array<ArrayBuffer>
let before: string[]
beforeAll(async () => {
  film = Uint8Array.from(readFileSync(await foreignFilm('prores', await temporaryFolder())))
  before = folders()
})
afterAll(() => conversion.end())

describe('conversion', () => {
  it('takes a film in pieces and gives back one that plays, then keeps nothing', async () => {
    const { id } = await (await order('camera.mov', film.length)).json()
    const half = Math.floor(film.length / 2)
    expect((await piece(id, 0, film.slice(0, half))).status).toBe(200)
    expect((await piece(id, 7, film.slice(half))).status).toBe(409)
    expect((await ask(`/${id}/film`)).status).toBe(409)
    expect((await piece(id, half, film.slice(half))).status).toBe(200)
    await vi.waitFor(
      async () => expect(await (await ask(`/${id}/state`)).json()).toMatchObject({ isDone: true, problem: null }),
      30_000,
    )
    const made = new Uint8Array(await (await ask(`/${id}/film`)).arrayBuffer())
    expect(Buffer.from(made.subarray(4, 8)).toString()).toBe('ftyp')
    expect((await ask(`/${id}`, { method: 'DELETE' })).status).toBe(204)
    expect((await ask(`/${id}/state`)).status).toBe(404)
    expect(folders()).toEqual(before)
  })

  it('is stopped at any moment without a trace, and says what it cannot convert', async () => {
    const { id } = await (await order('camera.mov', film.length)).json()
    await piece(id, 0, film)
    await ask(`/${id}`, { method: 'DELETE' })
    const noise = Uint8Array.from(film, (v, i) => (v * 31 + i * 17) & 255)
    const other = await (await order('noise.avi', noise.length)).json()
    await piece(other.id, 0, noise)
    await vi.waitFor(
      async () =>
        expect((await (await ask(`/${other.id}/state`)).json()).problem).toMatch(/“noise\.avi” cannot be converted/),
      30_000,
    )
    await ask(`/${other.id}`, { method: 'DELETE' })
    expect(folders()).toEqual(before)
  })

  it('is bounded, and only for our own pages', async () => {
    expect((await conversion.app.request('/', { method: 'POST', body: '{"name":"x","bytes":5}' })).status).toBe(403)
    for (const body of ['', '{}', '{"name":"x","bytes":-1}', '{"name":7,"bytes":5}', '{"name":"x","bytes":1.5}']) {
      expect((await ask('/', { method: 'POST', body })).status).toBe(400)
    }
    expect((await order('x', 1e12)).status).toBe(413)
    const ids = await Promise.all([1, 2].map(async () => (await (await order('../../x', 20)).json()).id as string))
    expect((await order('x', 20)).status).toBe(429)
    expect((await piece(ids[0]!, 0, new Uint8Array(30))).status).toBe(409)
    expect(
      (await ask(`/${ids[0]}/piece?at=0`, { method: 'PUT', body: 'x', headers: { 'content-length': '99000000' } }))
        .status,
    ).toBe(413)
    for (const id of ids) await ask(`/${id}`, { method: 'DELETE' })
    expect(folders()).toEqual(before)
  })
})
