// `ghost info`: what a project or a media file is.
import { existsSync, statSync } from 'node:fs'
import { basename } from 'node:path'
import type { Project, Take } from '../core/shot'
import { lengthText, rateText } from '../core/time'
import { describeTake, openMedia } from '../media/open'
import { nodeMedia, pathSource } from './engine'
import { findProject, looksLikeZip } from './projects'

function pictureText({ picture }: Omit<Take, 'digest'>): string {
  if (!picture) return 'no picture'
  const size = `${picture.size.width}×${picture.size.height}`
  if (picture.kind === 'still') return `${size}, a still`
  return `${size}, ${rateText(picture.rate)} fps${picture.varies ? ' on average' : ''}, ${picture.seconds.toFixed(2)} s`
}

const takeLine = (t: Omit<Take, 'digest'>): string =>
  `${t.name}: ${pictureText(t)}, ${(t.bytes / 1e6).toFixed(1)} MB, ` +
  (t.sound ? `sound ${t.sound.channels} × ${t.sound.sampleRate} Hz, ${t.sound.seconds.toFixed(2)} s` : 'no sound')

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
  const media = await openMedia(pathSource(path), basename(path))
  try {
    return await describeTake(media, statSync(path).size)
  } finally {
    media.close()
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
