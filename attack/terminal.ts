// Feeds files to the terminal's commands and sorts what comes of them.
import { type ChildProcess, fork } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { Attack } from './clips'
import type { Outcome } from './victim'

/** Seconds after which a file counts as having hung the terminal; its own bound is much shorter. */
const HANG = 40
/** Its own bound while it is attacked, in seconds. */
const PATIENCE = '2'

export interface Tally {
  read: number
  refused: number
  /** Ended by the terminal's own bound on reading, with a sentence. */
  bounded: number
  /** Names and what happened: a stack trace, a death without a sentence, a hang. */
  broken: string[]
}

function startVictim(): Promise<ChildProcess> {
  const path = fileURLToPath(new URL('./victim.ts', import.meta.url))
  const child = fork(path, {
    execArgv: ['--import', 'tsx'],
    env: { ...process.env, GHOST_PATIENCE: PATIENCE },
    stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
  })
  return new Promise(resolve => child.once('message', () => resolve(child)))
}

type Ending = Outcome | { kind: 'died' | 'hung'; text: string }

function attackWith(child: ChildProcess, path: string, frame: boolean): Promise<Ending> {
  let said = ''
  return new Promise(resolve => {
    const heard = (data: Buffer) => {
      said += data
    }
    const end = (ending: Ending) => {
      clearTimeout(timer)
      child.stderr?.off('data', heard)
      child.off('message', answered)
      child.off('close', died)
      resolve(ending)
    }
    const answered = (message: unknown) => end(message as Outcome)
    const died = () => end({ kind: 'died', text: said })
    const timer = setTimeout(() => end({ kind: 'hung', text: said }), HANG * 1000)
    child.stderr?.on('data', heard)
    child.on('message', answered)
    child.once('close', died)
    child.send({ path, frame })
  })
}

/** Gives every attack to `ghost info`, and to `ghost render` where that reads it and a frame is wanted. */
export async function attackTerminal(attacks: Iterable<Attack>, frame: boolean): Promise<Tally> {
  const folder = mkdtempSync(join(tmpdir(), 'attack-'))
  const tally: Tally = { read: 0, refused: 0, bounded: 0, broken: [] }
  let child = await startVictim()
  try {
    for (const { name, data } of attacks) {
      const path = join(folder, name)
      writeFileSync(path, data)
      const { kind, text } = await attackWith(child, path, frame)
      rmSync(path, { force: true })
      if (kind === 'read') tally.read++
      else if (kind === 'refused' && /[.!]$/.test(text.trim())) tally.refused++
      else if (kind === 'died' && text.includes('cannot be read to its end')) tally.bounded++
      else tally.broken.push(`${name}: ${kind} ${text.slice(0, 300)}`)
      if (kind === 'died' || kind === 'hung') {
        child.kill('SIGKILL')
        child = await startVictim()
      }
    }
  } finally {
    child.kill('SIGKILL')
    rmSync(folder, { recursive: true, force: true })
  }
  return tally
}
