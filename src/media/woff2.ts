// WOFF2 -> the tables that it packs (W3C, WOFF File Format 2.0).
import decompress from 'woff2-encoder/decompress'
import { LIMITS } from '../core/shot'

/** The one that is being unpacked: what comes out lies in memory that the next one is unpacked into. */
let unpacking: Promise<unknown> = Promise.resolve()

/** Throws what is no such font, or would be too large. */
export async function unpackWoff2(bytes: Uint8Array): Promise<Uint8Array> {
  const promised = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength).getUint32(16)
  if (promised > LIMITS.font) throw new Error('it is too large')
  const unpacked = unpacking.then(async () => (await decompress(bytes)).slice())
  unpacking = unpacked.catch(() => {})
  return unpacked
}
