// The one thread of an open shot that makes what plates tell; it starts when it is first needed.
import { type Client, type MediaFile, plateClient } from '../../workers/clients'
import type { PlateApi } from '../../workers/plate.worker'

export interface PlateThread {
  addFiles(files: readonly MediaFile[]): void
  call(): Promise<Client<PlateApi>['call']>
  end(): void
}

export function plateThread(): PlateThread {
  let files: MediaFile[] = []
  let client: Client<PlateApi> | null = null
  let ready: Promise<unknown> = Promise.resolve()
  return {
    addFiles(more) {
      files = [...files, ...more]
      const { call } = client ?? {}
      if (call) ready = ready.then(() => call.addFiles([...more]))
    },
    async call() {
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
