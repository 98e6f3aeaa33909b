// Drawings: what they show, at what size, and what of them does nothing.
import { beforeAll, expect, it } from 'vitest'
import { nodeMedia } from '../cli/engine'
import { drawDrawing, drawingSize, leftOut, mayBeDrawing } from './drawing'

const bytes = (text: string) => new TextEncoder().encode(text)
const svg = (inner: string, head = 'width="40" height="20"') =>
  bytes(`<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${head}>${inner}</svg>`)

beforeAll(() => nodeMedia())

it('is drawn at whatever size it is asked for, its colours straight', async () => {
  const half = svg('<rect width="20" height="20" fill="#c80000" fill-opacity="0.5"/>')
  expect(await drawingSize(half, 'a.svg')).toEqual({ width: 40, height: 20 })
  expect(leftOut(half, 'a.svg')).toBeNull()
  for (const scale of [1, 3.25]) {
    const { width, height, data } = await drawDrawing(half, 'a.svg', scale)
    expect([width, height]).toEqual([40 * scale, 20 * scale])
    const at = (x: number) => [...data.subarray((5 * width + x) * 4, (5 * width + x) * 4 + 4)]
    expect(at(3)).toEqual([200, 0, 0, 128].map(v => expect.closeTo(v, -0.5)))
    expect(at(width - 2)[3]).toBe(0)
  }
  const round = await drawDrawing(svg('<circle cx="20" cy="10" r="9"/>', 'viewBox="0 0 40 20"'), 'b.svg', 4)
  expect(round.data.filter((v, i) => i % 4 === 3 && v > 0 && v < 255).length).toBeGreaterThan(20)
})

it('runs nothing and fetches nothing', async () => {
  const quiet = svg(
    `<script>throw 1</script><image xlink:href="http://127.0.0.1:1/x.png" width="40" height="20"/>
     <image href="file:///etc/passwd" width="40" height="20"/><foreignObject width="40" height="20"><p>x</p></foreignObject>
     <style>@import url(http://127.0.0.1:1/x.css); rect { fill: #00ff00 }</style><rect width="5" height="5"/>`,
  )
  const { data } = await drawDrawing(quiet, 'c.svg', 1)
  expect([...data.subarray(0, 4)]).toEqual([0, 255, 0, 255])
  expect(data.slice(20 * 4, 24 * 4).every(v => v === 0)).toBe(true)
})

it('says what it leaves out', () => {
  expect(leftOut(svg('<text x="1" y="9">late</text>'), 'd.svg')).toMatch(/Text in “d\.svg” is left out/)
})

it('that is none, is hostile or has no size is refused with a sentence', async () => {
  const bomb = `<!DOCTYPE svg [<!ENTITY a "${'x'.repeat(50)}">${[...'bcdefghij']
    .map((n, i) => `<!ENTITY ${n} "${`&${'abcdefghi'[i]};`.repeat(40)}">`)
    .join('')}]>`
  for (const [text, said] of [
    ['<svg', /no drawing that can be read/],
    ['<html></html>', /no drawing that can be read/],
    [
      `${bomb}<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><text>&j;</text></svg>`,
      /no drawing|left out/,
    ],
    ['<svg xmlns="http://www.w3.org/2000/svg" width="90000" height="9"/>', /no picture here can be/],
  ] as const) {
    const file = bytes(text)
    const told = drawingSize(file, 'e.svg').then(() =>
      Promise.reject(new Error(leftOut(file, 'e.svg') ?? 'it was read')),
    )
    await expect(told).rejects.toThrow(said)
  }
  await expect(drawingSize(new Uint8Array(17 * 2 ** 20), 'f.svg')).rejects.toThrow(/larger than a drawing/)
})

it('is known by its first bytes', () => {
  for (const head of ['<svg ', '\ufeff<?xml version="1.0"?>', '  \n<!-- by hand -->', '<!DOCTYPE svg PUBLIC'])
    expect(mayBeDrawing(bytes(head))).toBe(true)
  for (const head of ['<html>', 'GIF89a', '{"a":1}']) expect(mayBeDrawing(bytes(head))).toBe(false)
})
