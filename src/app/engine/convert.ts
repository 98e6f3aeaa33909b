// Films that a browser cannot read, converted by the server on this machine.
import { Stopped } from '../stopped'

const PIECE = 8 * 2 ** 20
/** Milliseconds between two looks at how far it is. */
const PAUSE = 300
/** What share of the whole the sending counts. */
const SENDING = 0.1

const HEADERS = { 'x-jolly-ghost': '1' }

/** Whether there is a server that converts. */
export async function canConvert(): Promise<boolean> {
  try {
    const answer = await fetch('/convert')
    return answer.ok && (answer.headers.get('content-type') ?? '').includes('json')
  } catch {
    // Without a server there is nobody to ask.
    return false
  }
}

async function asked<T>(path: string, options: RequestInit, signal: AbortSignal): Promise<T> {
  const answer = await fetch(`/convert${path}`, { ...options, headers: { ...HEADERS, ...options.headers }, signal })
  const said = (await answer.json().catch(() => null)) as (T & { problem?: string }) | null
  if (!answer.ok || !said) throw new Error(said?.problem ?? `The server answers ${answer.status}.`)
  return said
}

interface State {
  share: number
  left: number | null
  problem: string | null
  isDone: boolean
}

async function send(id: string, file: File, signal: AbortSignal, onProgress: (share: number) => void): Promise<void> {
  for (let at = 0; at < file.size; at += PIECE) {
    const body = file.slice(at, at + PIECE)
    await asked(`/${id}/piece?at=${at}`, { method: 'PUT', body }, signal)
    onProgress(SENDING * Math.min(1, (at + PIECE) / file.size))
  }
}

async function wait(id: string, signal: AbortSignal, onProgress: (share: number, left: number | null) => void) {
  for (;;) {
    const { share, left, problem, isDone } = await asked<State>(`/${id}/state`, {}, signal)
    if (problem) throw new Error(problem)
    if (isDone) return
    onProgress(SENDING + (1 - SENDING) * share, left)
    await new Promise(resolve => setTimeout(resolve, PAUSE))
  }
}

/**
 * Sends a film to the server and fetches what it made of it: an ordinary film under the same name. `onProgress` is told
 * the share done and the seconds left. Throws Stopped, or an Error with a sentence; the server keeps nothing.
 */
export async function convertFile(
  file: File,
  signal: AbortSignal,
  onProgress: (share: number, left: number | null) => void,
): Promise<File> {
  let id: string | null = null
  try {
    const order = { method: 'POST', body: JSON.stringify({ name: file.name, bytes: file.size }) }
    id = (await asked<{ id: string }>('', order, signal)).id
    await send(id, file, signal, share => onProgress(share, null))
    await wait(id, signal, onProgress)
    const film = await fetch(`/convert/${id}/film`, { signal })
    if (!film.ok) throw new Error(`The server answers ${film.status}.`)
    const name = `${file.name.replace(/\.[^.]{1,5}$/, '')}.mov`
    return new File([await film.blob()], name, { type: 'video/quicktime' })
  } catch (error) {
    if (signal.aborted) throw new Stopped('Stopped.')
    throw error
  } finally {
    if (id) await fetch(`/convert/${id}`, { method: 'DELETE', headers: HEADERS }).catch(() => {})
  }
}
