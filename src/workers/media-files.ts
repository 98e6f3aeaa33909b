// The takes of a shot as a worker is given them.
import type { FrameStore } from '../media/frames'
import { blobSource, openMedia } from '../media/open'
import type { SoundStore } from '../media/sound'

export interface MediaFile {
  digest: string
  name: string
  blob: Blob
}

/** Opens each file for whichever stores want it. Files that cannot be opened are named with the reason. */
export async function openFiles(
  files: readonly MediaFile[],
  stores: { frames?: FrameStore; sounds?: SoundStore },
): Promise<{ digest: string; reason: string }[]> {
  const failed: { digest: string; reason: string }[] = []
  for (const { digest, name, blob } of files) {
    try {
      const media = await openMedia(blobSource(blob), name)
      stores.frames?.add(digest, media)
      stores.sounds?.add(digest, media)
    } catch (error) {
      failed.push({ digest, reason: error instanceof Error ? error.message : String(error) })
    }
  }
  return failed
}
