// Real films in foreign codings through the real converter, decoded again and compared.
import { readdir, readFile, writeFile } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { beforeAll, describe, expect, it } from 'vitest'
import { nodeKernels, nodeMedia, pathSource } from '../cli/engine'
import { toCodesPicture } from '../core/render'
import { temporaryFolder } from '../testing/clips'
import { FOREIGN_FRAMES, FOREIGN_SIZE, type ForeignKind, foreignFilm, foreignLuma } from '../testing/foreign'
import { convertFilm } from './convert'
import { frameStore } from './frames'
import { describeTake, openMedia } from './open'

let folder: string
beforeAll(async () => {
  nodeMedia()
  folder = await temporaryFolder()
})

async function converted(path: string) {
  const out = join(folder, `${basename(path)}.out.mov`)
  const shares: number[] = []
  await convertFilm(path, basename(path), out, { onProgress: share => shares.push(share) })
  expect(shares.at(-1)).toBe(1)
  const media = await openMedia(pathSource(out), 'out.mov')
  return { media, take: await describeTake(media, 1) }
}

/** Mean difference of a frame to what was filmed, in codes of luma. */
async function difference(media: Awaited<ReturnType<typeof converted>>['media'], frame: number, turn: boolean) {
  const k = await nodeKernels(64 << 20)
  const store = frameStore(k, 32 << 20)
  store.add('x', media)
  const picture = toCodesPicture(k, await store.get('x', (frame * 1001) / 30000 + 0.001))
  const { width, height } = FOREIGN_SIZE
  const codes = k.bytes(picture.ptr, width * height * 4)
  let sum = 0
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      // Turned anticlockwise, a column of what was filmed is a row from the bottom up.
      const at = turn ? (width - 1 - x) * height + y : y * width + x
      sum += Math.abs(codes[at * 4]! - foreignLuma(frame, x, y) * 255)
    }
  }
  return sum / (width * height)
}

describe('a film that is converted', () => {
  it.each<ForeignKind>(['hevc', 'prores', 'mpeg4'])('from %s is the same to the eye and to the frame', async kind => {
    const { media, take } = await converted(await foreignFilm(kind, folder))
    expect(take.picture).toMatchObject({ kind: 'film', size: FOREIGN_SIZE, rate: { num: 30000, den: 1001 } })
    const { seconds } = take.picture as { seconds: number }
    expect(seconds).toBeCloseTo((FOREIGN_FRAMES * 1001) / 30000, 1)
    for (const frame of kind === 'mpeg4' ? [5, 20] : [0, 7, 29])
      expect(await difference(media, frame, false)).toBeLessThan(2.5)
    media.close()
  })

  it('of two fields a frame shows whole pictures, those of the earlier field', async () => {
    const { media, take } = await converted(await foreignFilm('fields', folder))
    expect(take.picture).toMatchObject({ size: FOREIGN_SIZE })
    for (const frame of [8, 16]) expect(await difference(media, frame, false)).toBeLessThan(2.5)
    media.close()
  })

  it('comes upright where its container turns it', async () => {
    const path = await foreignFilm('hevc', folder)
    const bytes = await readFile(path)
    // The matrix of the track's head: 40 bytes behind its name, nine numbers of 16.16.
    const at = bytes.indexOf('tkhd') + 44
    for (const [i, v] of [0, -1, 0, 1, 0, 0].entries()) bytes.writeInt32BE(v * 65536, at + i * 4)
    const turned = join(folder, 'turned.mp4')
    await writeFile(turned, bytes)
    const { media, take } = await converted(turned)
    expect(take.picture).toMatchObject({ size: { width: FOREIGN_SIZE.height, height: FOREIGN_SIZE.width } })
    expect(await difference(media, 10, true)).toBeLessThan(2.5)
    media.close()
  })

  it('or cannot be leaves nothing behind, and says so', async () => {
    const path = join(folder, 'words.avi')
    await writeFile(path, 'RIFF, or so it says, AVI ')
    await expect(convertFilm(path, 'words.avi', join(folder, 'words.mov'))).rejects.toThrow(
      /“words\.avi” cannot be converted here either/,
    )
    // A list of other files is no film, whatever its name.
    const list = join(folder, 'list.avi')
    await writeFile(list, `ffconcat version 1.0\nfile '${path}'\n`)
    await expect(convertFilm(list, 'list.avi', join(folder, 'list.mov'))).rejects.toThrow(/cannot be converted/)
    expect((await readdir(folder)).filter(n => /words\.mov|list\.mov/.test(n))).toEqual([])
  })
})
