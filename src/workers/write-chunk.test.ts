import { expect, it } from 'vitest'
import { writeChunk } from './write-chunk'

it('throws where a disk takes less than it was given, wherever that is written', () => {
  const took: [number, unknown][] = []
  const disk = (room: number) => ({
    write(data: AllowSharedBufferSource, options?: FileSystemReadWriteOptions) {
      took.push([data.byteLength, options?.at])
      return Math.min(room, data.byteLength)
    },
  })
  writeChunk(disk(8), new Uint8Array(8))
  writeChunk(disk(8), new Uint8Array(8), 4)
  expect(took).toEqual([
    [8, undefined],
    [8, 4],
  ])
  expect(() => writeChunk(disk(7), new Uint8Array(8))).toThrow(expect.objectContaining({ name: 'QuotaExceededError' }))
})
