// A process of its own for each conversion: what crashes in native code, or is stopped, takes nothing else with it.
import { convertFilm } from '../media/convert'

export interface ConvertOrder {
  path: string
  name: string
  out: string
}

export type ConvertNews = { share: number } | { problem: string } | { done: true }

process.on('message', ({ path, name, out }: ConvertOrder) => {
  const tell = (news: ConvertNews) => process.send?.(news)
  let saidAt = 0
  const onProgress = (share: number) => {
    const now = performance.now()
    if (now - saidAt > 100) tell({ share })
    saidAt = now - saidAt > 100 ? now : saidAt
  }
  convertFilm(path, name, out, { onProgress })
    .then(
      () => tell({ done: true }),
      error => tell({ problem: error instanceof Error ? error.message : String(error) }),
    )
    .finally(() => process.disconnect?.())
})
