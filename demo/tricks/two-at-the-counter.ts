import { type DemoShot, type Files, layerOf, projectOf, seam, silent, takeOf } from '../shot'

export function twoAtTheCounter(files: Files): DemoShot {
  const right = { ...layerOf('act-b', 'clockmaker-right', files), matte: [seam(652, 4.4, 12)] }
  const left = layerOf('act-a', 'clockmaker-left', files)
  const shop = silent(layerOf('shop', 'empty-shop', files))
  const takes = (['clockmaker-right', 'clockmaker-left', 'empty-shop'] as const).map(name => takeOf(name, files))
  const project = projectOf('two-at-the-counter', 'Two at the counter', takes, 184, [right, left, shop])
  const trick = 'He stands at both ends of his counter: two takes, one soft edge between them.'
  return { slug: 'two-at-the-counter', trick, poster: 76, glance: { from: 40, to: 130 }, project }
}
