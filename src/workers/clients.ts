// The workers as the app calls them.
import * as Comlink from 'comlink'
import type { DeriveApi } from './derive.worker'
import type { ExportApi } from './export.worker'
import type { FilesApi } from './files.worker'
import type { PlateApi } from './plate.worker'
import type { RenderApi } from './render.worker'
import type { SoundApi } from './sound.worker'
import type { UnpackFontApi } from './unpack-font.worker'

export type { Inside, Moved } from '../media/follow'
export type { Held, Sought } from './find-seam'
export type { OutlineAt } from './find-worst'
export { type FrameNews, forgetFramesOf, framesKept, onFrameNews } from './frame-place'
export type { MediaFile } from './media-files'
export type { MadeOf } from './plate.worker'
export type { Shown, Subject } from './render.worker'
export const { proxy, transfer } = Comlink

export interface Client<T> {
  call: Comlink.Remote<T>
  /** Ends the thread at once. */
  end(): void
}

function client<T>(worker: Worker): Client<T> {
  return { call: Comlink.wrap<T>(worker), end: () => worker.terminate() }
}

export const renderClient = (): Client<RenderApi> =>
  client(new Worker(new URL('./render.worker.ts', import.meta.url), { type: 'module' }))
export const soundClient = (): Client<SoundApi> =>
  client(new Worker(new URL('./sound.worker.ts', import.meta.url), { type: 'module' }))
export const exportClient = (): Client<ExportApi> =>
  client(new Worker(new URL('./export.worker.ts', import.meta.url), { type: 'module' }))
export const filesClient = (): Client<FilesApi> =>
  client(new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' }))
export const unpackFontClient = (): Client<UnpackFontApi> =>
  client(new Worker(new URL('./unpack-font.worker.ts', import.meta.url), { type: 'module' }))
export const deriveClient = (): Client<DeriveApi> =>
  client(new Worker(new URL('./derive.worker.ts', import.meta.url), { type: 'module' }))
export const plateClient = (): Client<PlateApi> =>
  client(new Worker(new URL('./plate.worker.ts', import.meta.url), { type: 'module' }))
