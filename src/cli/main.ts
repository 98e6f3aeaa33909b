// `ghost`: the same core from a terminal.
import { parseArgs } from 'node:util'
import { Complaint } from './complaint'
import { info } from './info'
import { render } from './render'

const HELP = `ghost: combine locked-off takes with animated mattes

  ghost render <project file | demo name> --out file.mp4|file.webm|frames-folder
               [--frames 0-89] [--scale 0.5]
  ghost info   <project file | demo name | media file> [--json]

Frames count from 0 and both ends are included. A folder gets one PNG a frame.`

async function main(): Promise<number> {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      out: { type: 'string' },
      frames: { type: 'string' },
      scale: { type: 'string' },
      json: { type: 'boolean', default: false },
      help: { type: 'boolean', short: 'h', default: false },
    },
  })
  const [command, subject] = positionals
  if (values.help || !command) {
    process.stdout.write(`${HELP}\n`)
    return command || values.help ? 0 : 2
  }
  if (!subject) throw new Complaint(`Say what to ${command}: a project file or the name of a demo shot.`)
  if (command === 'render') await render(subject, values)
  else if (command === 'info') await info(subject, values.json)
  else throw new Complaint(`“${command}” is not a command. There are render and info.`)
  return 0
}

// A decoder may fail outside any call of ours; that ends the work like any other failure.
process.on('unhandledRejection', error => {
  process.stderr.write(`ghost: a take cannot be decoded (${error instanceof Error ? error.message : String(error)}).\n`)
  process.exit(1)
})

main().then(
  code => process.exit(code),
  error => {
    const known = error instanceof Complaint || (error instanceof Error && error.name === 'MediaProblem')
    const usage = error instanceof TypeError && 'code' in error && String(error.code).startsWith('ERR_PARSE_ARGS')
    process.stderr.write(`ghost: ${known || usage ? error.message : (error?.stack ?? error)}\n`)
    process.exit(known || usage ? 2 : 1)
  },
)
