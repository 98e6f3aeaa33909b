// The kernels inside a worker of the browser.
import url from '../../build/kernels.wasm?url'
import { type Kernels, loadKernels } from '../core/render'

export async function browserKernels(bytes: number): Promise<Kernels> {
  const answer = await fetch(url)
  return loadKernels(await WebAssembly.compile(await answer.arrayBuffer()), bytes)
}
