// What a media file is, in the words of a take.
import { statSync } from 'node:fs'
import { basename } from 'node:path'
import type { Take } from '../core/shot'
import { describeTake, openMedia } from '../media/open'
import { nodeMedia, pathSource } from './engine'
import { patiently } from './patience'

/** A file as the take it would be. Throws MediaProblem where it cannot be one. */
export async function mediaInfo(path: string): Promise<Omit<Take, 'digest'>> {
  nodeMedia()
  const { size } = statSync(path)
  return patiently(basename(path), size, async () => {
    const media = await openMedia(pathSource(path), basename(path))
    try {
      return await describeTake(media, size)
    } finally {
      media.close()
    }
  })
}
