// `ghost info`: what a project or a media file is.
import { existsSync, statSync } from 'node:fs'
import { basename } from 'node:path'
import { FilePathSource } from 'mediabunny'
import type { Project, Take } from '../core/shot'
import { lengthText, rateText } from '../core/time'
import { describeTake, openMedia } from '../media/open'
import { nodeMedia } from './engine'
import { findProject, looksLikeZip } from './projects'

const takeLine = (t: Omit<Take, 'digest'>): string =>
  `${t.name}: ${t.size.width}×${t.size.height}, ${rateText(t.rate)} fps, ${t.seconds.toFixed(2)} s, ` +
  `${(t.bytes / 1e6).toFixed(1)} MB, ${t.sound ? `sound ${t.sound.channels} × ${t.sound.sampleRate} Hz` : 'no sound'}`

function projectText({ shot, takes }: Project): string {
  const { size, rate, length } = shot
  const layers = shot.layers.map(l => {
    const source = l.source
    const from = source.kind === 'take' ? takes.find(t => t.digest === source.digest)?.name : 'a group'
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

async function mediaInfo(path: string): Promise<Omit<Take, 'digest'>> {
  nodeMedia()
  const media = await openMedia(new FilePathSource(path), basename(path))
  try {
    return await describeTake(media, await media.input.getMimeType().then(t => t.split(';')[0]!), statSync(path).size)
  } finally {
    media.input.dispose()
  }
}

export async function info(subject: string, json: boolean): Promise<void> {
  const isMedia = existsSync(subject) && statSync(subject).isFile() && !(await looksLikeZip(subject))
  const print = (data: unknown, text: string) =>
    process.stdout.write(`${json ? JSON.stringify(data, null, 2) : text}\n`)
  if (isMedia) {
    const take = await mediaInfo(subject)
    print({ kind: 'media', ...take }, takeLine(take))
    return
  }
  const found = await findProject(subject)
  await found.close()
  print({ kind: 'project', ...found.project }, projectText(found.project))
}
