// Letters set in real fonts, however they are packed, and what is no font.
import { describe, expect, it } from 'vitest'
import { UNMOVED } from '../core/affine'
import { type Letters, lettersFrame, lettersRings, type Wording } from '../core/graphic'
import { fontFile } from '../testing/fonts'
import { plainFont } from './font'
import { fontStore } from './fonts'
import { describeTake, type MediaSource, openMedia } from './open'

const fileOf = (bytes: Uint8Array<ArrayBuffer>): MediaSource => ({
  bytes: bytes.length,
  source: () => {
    throw new Error('no film')
  },
  read: async (from, to) => bytes.slice(from, to),
})

async function set(
  text: string,
  changes: Partial<Wording> = {},
  fonts = ['fraunces', 'arabic'] as const,
): Promise<Letters> {
  const store = fontStore()
  for (const name of fonts) {
    const media = await openMedia(fileOf(await fontFile(name)), `${name}.woff2`)
    if (media.kind !== 'font') throw new Error('no font')
    store.add(name, media)
  }
  return (await store.letters({ text, fonts, axes: {}, loose: false, ...changes }))!
}

const width = async (text: string, changes?: Partial<Wording>) => (await set(text, changes)).lines[0]!.width

describe('letters', () => {
  it('are kerned, and joined unless they stand apart', async () => {
    expect(await width('AV')).toBeLessThan((await width('A')) + (await width('V')) - 0.01)
    expect((await set('fi')).lines[0]!.glyphs.length).toBeLessThanOrEqual(
      (await set('fi', { loose: true })).lines[0]!.glyphs.length,
    )
  })

  it('run from right to left where their script does, among others that do not', async () => {
    const arabic = (await set('سلام')).lines[0]!
    // Joined they are other glyphs than each is by itself.
    const alone = await Promise.all([...'سلام'].map(async l => (await set(l)).lines[0]!.width))
    expect(arabic.width).toBeLessThan(alone.reduce((a, b) => a + b) - 0.1)
    const [before, mixed] = [await set('ab'), await set('ab سلام')]
    // The Latin letters stay left of the rest, in a line that begins with them.
    expect(mixed.lines[0]!.glyphs.slice(0, 2).map(g => g.x)).toEqual(before.lines[0]!.glyphs.map(g => g.x))
    expect((await set('سلام ab')).lines[0]!.glyphs[0]!.x).toBe(0)
    expect((await set('سلام ab')).lines[0]!.width).toBeCloseTo(mixed.lines[0]!.width, 6)
  })

  it('are varied as their font can be, and nothing else is', async () => {
    const [thin, black] = [await width('mm', { axes: { wght: 100 } }), await width('mm', { axes: { wght: 900 } })]
    expect(black - thin).toBeGreaterThan(0.1)
    expect(await width('mm', { axes: { wght: 1e9, none: 3 } })).toBe(black)
  })

  it('that no font has are named', async () => {
    const { lacks, lines } = await set('a\u3042b☃\n\u00ad')
    expect([...lacks].sort()).toEqual(['\u3042', '☃'].sort())
    expect(lines).toHaveLength(2)
    expect((await set('', {})).lines).toEqual([{ width: 0, letters: 0, glyphs: [] }])
    expect(await fontStore().letters({ text: 'a', fonts: ['nowhere'], axes: {}, loose: false })).toBeNull()
  })

  it('stand about nought as they are aligned, apart by what is said', async () => {
    const letters = await set('ab\nabab')
    const layout = { size: 100, spacing: 0, leading: 1.5, align: 'middle' } as const
    const frame = lettersFrame(letters, layout)
    expect(frame.left).toBeCloseTo(-frame.width / 2, 9)
    expect(frame.top).toBeCloseTo(-frame.height / 2, 9)
    expect(lettersFrame(letters, { ...layout, leading: 2 }).height - frame.height).toBeCloseTo(50, 6)
    expect(lettersFrame(letters, { ...layout, spacing: 0.1 }).width - frame.width).toBeCloseTo(30, 6)
    expect(lettersFrame(letters, { ...layout, align: 'right' }).left).toBeCloseTo(-frame.width, 9)
    const xs = lettersRings(letters, layout, UNMOVED)
      .flat(2)
      .map(p => p.x)
    expect(Math.min(...xs)).toBeGreaterThan(frame.left - 10)
    expect(Math.max(...xs)).toBeLessThan(frame.left + frame.width + 10)
  })
})

describe('a font file', () => {
  it('is the same however it is packed', async () => {
    const [two, one] = [await fontFile('limelight'), await fontFile('limelight1')]
    const tables = await Promise.all([plainFont(two, 'font/woff2', 'two'), plainFont(one, 'font/woff', 'one')])
    const glyphs = tables.map(async bytes => {
      const store = fontStore()
      store.add('font', { kind: 'font', name: '', type: '', tables: async () => bytes, close() {} })
      return store.letters({ text: 'Half past never', fonts: ['font'], axes: {}, loose: false })
    })
    const [a, b] = await Promise.all(glyphs)
    expect(a!.outlines.length).toBeGreaterThan(5)
    expect(b).toEqual(a)
  })

  it('tells its name and what can be varied', async () => {
    const media = await openMedia(fileOf(await fontFile('fraunces')), 'x.woff2')
    const take = await describeTake(media, 1)
    expect(take).toMatchObject({ picture: null, sound: null, font: { family: 'Fraunces' } })
    expect(take.font!.axes.map(a => a.tag)).toContain('wght')
  })

  it('that is none, is cut short or lies about itself is refused with a sentence', async () => {
    const good = await fontFile('limelight')
    const woff = await fontFile('limelight1')
    const lies = woff.slice()
    new DataView(lies.buffer).setUint32(44 + 4, 0xfffffff0)
    const vast = woff.slice()
    new DataView(vast.buffer).setUint32(44 + 12, 0x7fffffff)
    const noise = Uint8Array.from({ length: 4000 }, (_, i) => (i * 7919) & 255)
    const named = (head: string, rest: Uint8Array) =>
      new Uint8Array([...head].map(c => c.charCodeAt(0)).concat(...rest))
    for (const bytes of [
      named('wOF2', noise),
      named('wOFF', noise),
      named('OTTO', noise),
      named('\0\x01\0\0', noise),
      named('ttcf', noise),
      good.slice(0, 3000),
      woff.slice(0, 3000),
      lies,
      vast,
    ]) {
      const looked = openMedia(fileOf(bytes), 'strange.ttf').then(media => describeTake(media, bytes.length))
      await expect(looked).rejects.toThrow(/“strange\.ttf” is damaged, or no font/)
    }
  })
})
