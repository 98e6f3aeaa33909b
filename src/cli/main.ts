// `ghost`: the same core from a terminal.
import { rmSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { Complaint, sentenceOf } from './complaint'
import { scratchFolders } from './patience'
import { printable } from './printable'

const HELP = `ghost: combine locked-off takes with animated mattes

  ghost render <project file | demo name> --out file.mp4|file.webm|frames-folder
               [--frames 0-89] [--scale 0.5] [--matte "name of a layer"] [--kept folder]
  ghost convert <film>... [--out folder]     what a browser cannot read, as H.264 in MOV
  ghost check  <film>... [--plate <film | still>] [--json]
               how still the camera stands, how even the light is, when nobody is there
  ghost follow --take <film> --at x,y --from frame [--frames 0-89] [--json]
               where a point of a frame goes in the others
  ghost follow --take <film> --corners "x,y x,y x,y x,y" --from frame [--frames 0-89] [--json]
               where the corners of something flat go, in perspective
  ghost plate  <film>... --out plate.png     the set, while people come and go
  ghost cutout --take <film> --out folder [--plate <film | still>] [--shadow folder] [--frames 0-89] [--threads 2]
               somebody by their plate: alpha, and how much light their shadow takes, as grey PNGs
  ghost info   <project file | demo name | media file> [--json]

What is cut out by a plate is kept in the folder of --kept, and looked up there the next time. Frames count from 0 and both ends are included. A folder gets one PNG a frame.`

const COMMANDS = ['render', 'check', 'cutout', 'follow', 'plate', 'convert', 'info']

async function main(): Promise<number> {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      out: { type: 'string' },
      frames: { type: 'string' },
      scale: { type: 'string' },
      matte: { type: 'string' },
      kept: { type: 'string' },
      take: { type: 'string' },
      at: { type: 'string' },
      corners: { type: 'string' },
      from: { type: 'string' },
      plate: { type: 'string' },
      shadow: { type: 'string' },
      threads: { type: 'string' },
      json: { type: 'boolean', default: false },
      help: { type: 'boolean', short: 'h', default: false },
    },
  })
  const [command, subject] = positionals
  const isAsked = values.help || command === 'help'
  if (isAsked || !command) {
    process.stdout.write(`${HELP}\n`)
    return isAsked ? 0 : 2
  }
  if (command === 'cutout') {
    await (await import('./cut')).cut(values)
    return 0
  }
  if (command === 'follow') {
    await (await import('./follow')).follow(values)
    return 0
  }
  if (!COMMANDS.includes(command))
    throw new Complaint(`“${command}” is not a command. There are ${COMMANDS.join(', ')}.`)
  if (!subject) throw new Complaint(`Say what to ${command}: a project file or the name of a demo shot.`)
  // Each command loads what it needs and no more.
  if (command === 'render') await (await import('./render')).render(subject, values)
  else if (command === 'info') await (await import('./info')).info(subject, values.json)
  else if (command === 'convert') await (await import('./convert')).convert(positionals.slice(1), values.out)
  else if (command === 'check') await (await import('./cut')).check(positionals.slice(1), values)
  else await (await import('./cut')).plate(positionals.slice(1), values)
  return 0
}

// Whatever ends the process, nothing is left behind.
process.on('exit', () => {
  for (const folder of scratchFolders()) rmSync(folder, { recursive: true, force: true })
})
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => process.exit(130))

/** Where what is said cannot be written. Whoever reads may have read enough: nobody is left to tell then, and the code is the usual one. */
function unwritten(error: NodeJS.ErrnoException): void {
  if (error.code === 'EPIPE') process.exit(141)
  process.stderr.write(`ghost: the answer cannot be written (${error.message}).\n`, () => process.exit(1))
}

/** Ends the process once all that was written has been taken: what reads it may be slower. */
function leave(code: number): void {
  const { stdout, stderr } = process
  stdout.write('', error => {
    if (error) unwritten(stdout.errored ?? error)
    else stderr.write('', () => process.exit(code))
  })
}

process.stdout.on('error', unwritten)
process.stderr.on('error', () => process.exit(1))

// A decoder, or what writes a film, may fail outside any call of ours; that ends the work like any other failure.
process.on('unhandledRejection', error => {
  const said = error instanceof Error ? error.message : String(error)
  process.stderr.write(`ghost: ${printable(sentenceOf(error) ?? `a film cannot be read or written (${said}).`)}\n`)
  process.exit(1)
})

main().then(leave, error => {
  const sentence = sentenceOf(error)
  process.stderr.write(`ghost: ${printable(sentence ?? error?.stack ?? String(error))}\n`)
  leave(sentence === null ? 1 : 2)
})
