// The threads of an open shot that make what plates tell; each starts when it is first needed.
import { type Client, type MediaFile, plateClient } from '../../workers/clients'
import type { PlateApi } from '../../workers/plate.worker'
import { THREADS } from '../jobs/threads'

type PlateCall = Client<PlateApi>['call']

export interface PlateThreads {
  count: number
  addFiles(files: readonly MediaFile[]): void
  /** Has work done in one of them: in that which has least to do, or in the one that is named, 0..count − 1. */
  use<T>(work: (call: PlateCall) => Promise<T>, own?: number): Promise<T>
  end(): void
}

function thread() {
  let files: MediaFile[] = []
  let client: Client<PlateApi> | null = null
  let ready: Promise<unknown> = Promise.resolve()
  return {
    works: 0,
    addFiles(more: readonly MediaFile[]): void {
      files = [...files, ...more]
      const { call } = client ?? {}
      if (call) ready = ready.then(() => call.addFiles([...more]))
    },
    async call(): Promise<PlateCall> {
      if (!client) {
        client = plateClient()
        ready = client.call.addFiles(files)
      }
      await ready
      return client.call
    },
    end: () => client?.end(),
  }
}

export function plateThreads(): PlateThreads {
  const all = Array.from({ length: THREADS }, thread)
  const idlest = () => all.reduce((best, other) => (other.works < best.works ? other : best))
  return {
    count: THREADS,
    addFiles(files) {
      for (const one of all) one.addFiles(files)
    },
    async use(work, own) {
      const one = own === undefined ? idlest() : all[own]!
      one.works++
      try {
        return await work(await one.call())
      } finally {
        one.works--
      }
    },
    end() {
      for (const one of all) one.end()
    },
  }
}
