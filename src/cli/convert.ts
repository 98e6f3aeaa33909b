// `ghost convert`: films that a browser cannot read, as ones that it can.
import { existsSync, statSync } from 'node:fs'
import { mkdir } from 'node:fs/promises'
import { basename, dirname, extname, join } from 'node:path'
import { convertFilm } from '../media/convert'
import { Complaint } from './complaint'
import { printable } from './printable'
import { wholeFile } from './whole-file'

function progress(name: string) {
  let shown = -1
  return (share: number) => {
    const percent = Math.floor(share * 100)
    if (percent === shown) return
    shown = percent
    if (process.stderr.isTTY) process.stderr.write(`\r${printable(name)}: ${percent}% ${percent === 100 ? '\n' : ''}`)
    else if (percent % 25 === 0) process.stderr.write(`${printable(name)}: ${percent}%\n`)
  }
}

/** Writes each film beside itself, or into a folder, under its name with `.mov`; no file that is there is overwritten. */
export async function convert(paths: readonly string[], folder: string | undefined): Promise<void> {
  if (folder) await mkdir(folder, { recursive: true })
  for (const path of paths) {
    if (!existsSync(path) || !statSync(path).isFile()) throw new Complaint(`There is no file “${path}”.`)
    const stem = basename(path, extname(path))
    const out = join(folder ?? dirname(path), `${stem}${extname(path).toLowerCase() === '.mov' ? ' h264' : ''}.mov`)
    if (existsSync(out)) throw new Complaint(`“${out}” is there already.`)
    await wholeFile(out, part => convertFilm(path, basename(path), part, { onProgress: progress(basename(path)) }))
    process.stdout.write(`${printable(out)}\n`)
  }
}
