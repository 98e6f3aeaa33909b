// Unpacks one font and does nothing else: what unpacks it makes its code as it goes, which no other thread may.
import * as Comlink from 'comlink'
import { unpackWoff2 } from '../media/woff2'

const api = {
  /** Throws what is no such font. */
  unpack: async (bytes: Uint8Array): Promise<Uint8Array> => unpackWoff2(bytes),
}

export type UnpackFontApi = typeof api
Comlink.expose(api)
