import type { Client } from '../../workers/clients'

/** What work gives, or what a signal was aborted with, whichever comes first. */
export async function orAborted<T>(signal: AbortSignal, work: () => Promise<T>): Promise<T> {
  signal.throwIfAborted()
  let stop = () => {}
  const aborted = new Promise<never>((_, reject) => {
    stop = () => reject(signal.reason)
    signal.addEventListener('abort', stop, { once: true })
  })
  try {
    return await Promise.race([work(), aborted])
  } finally {
    signal.removeEventListener('abort', stop)
  }
}

/** Runs work in a thread of its own, which ends with it or as soon as the signal is aborted. */
export async function withThread<Api, T>(
  start: () => Client<Api>,
  signal: AbortSignal,
  use: (call: Client<Api>['call']) => Promise<T>,
): Promise<T> {
  const client = start()
  try {
    return await orAborted(signal, () => use(client.call))
  } finally {
    client.end()
  }
}
