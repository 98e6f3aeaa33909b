// Where a worker of the browser has the module that draws from.
import moduleUrl from '@resvg/resvg-wasm/index_bg.wasm?url'
import { setDrawingModule } from '../media/drawing'

export const browserDrawings = (): void => setDrawingModule(async () => (await fetch(moduleUrl)).arrayBuffer())
