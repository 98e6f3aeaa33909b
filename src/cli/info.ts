// `ghost info`: what a project or a media file is.
import { existsSync, statSync } from 'node:fs'
import { asTake, type Project, sourceKind, type Take } from '../core/shot'
import { lengthText, rateText } from '../core/time'
import { printable } from './printable'
import { findProject, looksLikeProject } from './projects'

function pictureText({ picture }: Omit<Take, 'digest'>): string {
  if (!picture) return 'no picture'
  const size = `${picture.size.width}×${picture.size.height}`
  if (picture.kind !== 'film') return `${size}, a ${picture.kind}`
  return `${size}, ${rateText(picture.rate)} fps${picture.varies ? ' on average' : ''}, ${picture.seconds.toFixed(2)} s`
}

const takeLine = (t: Omit<Take, 'digest'>): string =>
  `${t.name}: ${pictureText(t)}, ${(t.bytes / 1e6).toFixed(1)} MB, ` +
  (t.sound ? `sound ${t.sound.channels} × ${t.sound.sampleRate} Hz, ${t.sound.seconds.toFixed(2)} s` : 'no sound')

function projectText({ shot, takes }: Project): string {
  const { size, rate, length } = shot
  const layers = shot.layers.map(l => {
    const source = asTake(l.source)
    const from = source ? takes.find(t => t.digest === source.digest)?.name : `a ${sourceKind(l.source).name}`
    const matte = l.matte.length > 0 ? `, matte of ${l.matte.length}${l.matteOn ? '' : ' (away)'}` : ''
    return `    ${l.name}: ${from}, frames ${l.span.from} to ${l.span.to - 1}${matte}${l.on ? '' : ', hidden'}`
  })
  return [
    `${shot.name}: ${size.width}×${size.height}, ${rateText(rate)} fps, ${length} frames (${lengthText(length, rate)})`,
    '  layers, nearest the lens first',
    ...layers,
    '  takes',
    ...takes.map(t => `    ${takeLine(t)}`),
  ].join('\n')
}

export async function info(subject: string, json: boolean): Promise<void> {
  const isMedia = existsSync(subject) && statSync(subject).isFile() && !(await looksLikeProject(subject))
  const print = (data: unknown, text: string) =>
    process.stdout.write(`${json ? JSON.stringify(data, null, 2) : printable(text)}\n`)
  if (isMedia) {
    // Decoders take their time to load; a project needs none.
    const { mediaInfo } = await import('./media-info')
    const take = await mediaInfo(subject)
    print({ kind: 'media', ...take }, takeLine(take))
    return
  }
  const found = await findProject(subject)
  await found.close()
  print({ kind: 'project', ...found.project }, projectText(found.project))
}
