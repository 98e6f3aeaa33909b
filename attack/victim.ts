// The terminal's own commands, one file after the other, in a process that may be killed when it hangs.
import { rmSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { info } from '../src/cli/info'
import { render } from '../src/cli/render'

/** What came of a file: it was read, or refused with a sentence, or something broke. */
export type Outcome = { kind: 'read' | 'refused' | 'broken'; text: string }

async function outcomeOf(run: () => Promise<void>): Promise<Outcome> {
  let printed = ''
  const { write } = process.stdout
  process.stdout.write = ((text: string) => {
    printed += text
    return true
  }) as typeof write
  try {
    await run()
    return { kind: 'read', text: printed }
  } catch (error) {
    const known = error instanceof Error && ['Complaint', 'MediaProblem'].includes(error.name)
    return known
      ? { kind: 'refused', text: error.message }
      : { kind: 'broken', text: String((error as Error)?.stack ?? error) }
  } finally {
    process.stdout.write = write
  }
}

process.on('unhandledRejection', () => {})
process.on('message', async ({ path, frame }: { path: string; frame: boolean }) => {
  const first = await outcomeOf(() => info(path, false))
  if (first.kind !== 'read' || !frame) return void process.send!(first)
  const out = join(dirname(path), 'frames')
  const second = await outcomeOf(() => render(path, { out, frames: '0', scale: '0.25' }))
  rmSync(out, { recursive: true, force: true })
  process.send!(second)
})
process.send!('ready')
