// Every kind of work that takes a while, a line each.
import { THREADS } from './threads'

interface Kind {
  /** How many may run at the same time; what comes later waits. This is what bounds their memory. */
  atOnce: number
  /** Whether the tab asks before it is closed, since work would be lost. */
  asks: boolean
  /** Whether it stays listed when it has ended, until somebody has done with it. */
  stays: boolean
}

export const JOB_KINDS = {
  /** A film is made of a shot; begun again after a reload. */
  export: { atOnce: 1, asks: true, stays: true },
  /** Files are looked at and become takes. */
  bring: { atOnce: 1, asks: true, stays: false },
  /** The server makes a film out of one that the browser cannot read. */
  convert: { atOnce: 1, asks: true, stays: false },
  /** A project file becomes a shot of this machine. */
  open: { atOnce: 1, asks: true, stays: false },
  /** A demo shot is fetched from the server. */
  fetch: { atOnce: 1, asks: false, stays: false },
  /** A shot is written into one file. */
  pack: { atOnce: 1, asks: true, stays: false },
  /** An outline is compared with the pictures between its keys. */
  compare: { atOnce: 1, asks: false, stays: false },
  /** A shot is removed. */
  remove: { atOnce: 1, asks: false, stays: false },
  /** Small frames and loudness of a take. What is ready is kept; the rest is made when the shot is opened again. */
  derive: { atOnce: 1, asks: false, stays: false },
  /** Frames of cut-outs before anybody asks for them, in as many threads as there are. What is ready is kept; the rest is made when the shot is opened again. */
  cut: { atOnce: 1, asks: false, stays: false },
  /** A take is looked through for the lock-off report. */
  look: { atOnce: THREADS, asks: false, stays: false },
} as const satisfies Record<string, Kind>

export type JobKind = keyof typeof JOB_KINDS
