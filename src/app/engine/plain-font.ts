// Fonts packed as WOFF2 are kept as what they pack, so that whatever draws letters can read them.
import { transfer, unpackFontClient } from '../../workers/clients'
import { withThread } from '../jobs/thread'

const WOFF2 = 'wOF2'
const HEAD = 4
/** Milliseconds that a font may take. */
const PATIENCE = 20_000

/** A file as it comes in: a packed font unpacked, any other as it is; null where a font cannot be unpacked. */
export async function plainFile(file: File, signal: AbortSignal): Promise<File | null> {
  const head = await file.slice(0, HEAD).text()
  if (head !== WOFF2) return file
  const bytes = new Uint8Array(await file.arrayBuffer())
  try {
    const tables = await withThread(unpackFontClient, signal, call => {
      const late = new Promise<null>(resolve => setTimeout(() => resolve(null), PATIENCE))
      return Promise.race([call.unpack(transfer(bytes, [bytes.buffer])), late])
    })
    return tables && new File([tables as Uint8Array<ArrayBuffer>], file.name.replace(/\.woff2$/i, '.ttf'))
  } catch (error) {
    if (signal.aborted) throw error
    console.error('A font cannot be unpacked:', error)
    return null
  }
}
