import { expect, it } from 'vitest'
import { seenTake as take } from '../../../testing/seen'
import { findings, type Seen } from '.'

const about = (kind: string, frames: Seen[]) => findings(frames).filter(f => f.about === kind)

it('tells a camera that stands still from one that is bumped, wanders, or is held by hand', () => {
  expect(
    about(
      'camera',
      take(() => ({})),
    ),
  ).toMatchObject([{ isFault: false }])
  const bumped = about(
    'camera',
    take(i => (i >= 40 ? { x: 1.2, y: 0.5 } : {})),
  )
  expect(bumped).toMatchObject([{ from: 40, isFault: true }])
  expect(bumped[0]!.sentence).toContain('1.3 px')
  expect(
    about(
      'camera',
      take(i => ({ x: i * 0.01 })),
    )[0]!.sentence,
  ).toContain('wanders')
  expect(
    about(
      'camera',
      take(i => ({ x: 2 * Math.sin(i), y: Math.cos(i * 1.3) })),
    )[0]!.sentence,
  ).toContain('held by hand')
})

it('tells a veil of light that lies over all of a take from light that is brighter', () => {
  const gain = [0.97, 0.97, 0.97] as const
  const [found] = about(
    'light',
    take(() => ({ light: 1.04, veiled: { gain, offset: 0.006 } })),
  )
  expect(found).toMatchObject({ isFault: true, advice: 'match' })
  expect(found!.sentence).toMatch(/veil of light.*0\.60% of white/)
  const slight = about(
    'light',
    take(() => ({ veiled: { gain, offset: 0.0002 } })),
  )
  expect(slight).toMatchObject([{ isFault: false }])
})

it('tells light that is even from what drifts, flickers, or is switched', () => {
  expect(
    about(
      'light',
      take(() => ({})),
    ),
  ).toMatchObject([{ isFault: false }])
  expect(
    about(
      'light',
      take(() => ({ light: 0.94 })),
    ),
  ).toMatchObject([{ isFault: true }])
  expect(
    about(
      'light',
      take(i => ({ light: 1 + 0.0005 * i })),
    )[0]!.sentence,
  ).toMatch(/grows by 4\.\d%/)
  expect(
    about(
      'light',
      take(i => ({ light: 1 + 0.06 * Math.exp(-(((i - 40) / 12) ** 2)) })),
    ),
  ).toMatchObject([
    { isFault: true, sentence: expect.stringMatching(/wanders by [56]\.\d%.*brightest at frame (3[89]|4[0-2])/) },
  ])
  expect(
    about(
      'light',
      take(i => ({ light: 1 + 0.01 * (i % 2) })),
    )[0]!.sentence,
  ).toContain('flickers')
  expect(
    about(
      'light',
      take(i => ({ light: i < 60 ? 1 : 1.3 })),
    ),
  ).toMatchObject([{ from: 60, isFault: true }])
})

it('parts a take into acts and stretches in which nobody is there', () => {
  const frames = take(i => ({ share: (i >= 20 && i < 45) || (i >= 70 && i !== 80) ? 0.08 : 0 }))
  expect(about('people', frames).map(f => [f.from, f.to, f.sentence.split(' ')[0]])).toEqual([
    [0, 19, 'Nobody'],
    [20, 44, 'Act'],
    [45, 69, 'Nobody'],
    [70, 99, 'Act'],
  ])
  expect(
    about(
      'people',
      take(() => ({ share: 0.9 })),
    )[0]!.sentence,
  ).toContain('another place')
  expect(findings(take(i => ({ share: 0.9, x: 3 * (i % 2), light: 0.5 })))).toHaveLength(1)
  const atNight = findings(take(i => ({ share: 0.3, shade: 0.15, x: 3 * Math.floor(i / 30), light: 0.25 })))
  expect(atNight).toMatchObject([{ isFault: true, sentence: expect.stringContaining('in another light') }])
  // Neither a lamp that goes out on the way nor somebody near the lens in less light is a reason to say so.
  const switched = findings(take(i => (i < 30 ? {} : { share: 0.3, shade: 0.15, light: 0.25 })))
  expect(switched.find(f => f.about === 'light')).toMatchObject({ from: 30, word: 'darker', advice: 'split' })
  expect(findings(take(() => ({ share: 0.2, shade: 0.1, light: 0.5 }))).length).toBeGreaterThan(1)
  expect(findings([])).toEqual([])
})

it('parts one long take where somebody goes from one place to another, and nowhere else', () => {
  const acts = (of: (frame: number) => number | null, size = { width: 0.1, height: 0.4 }) =>
    about(
      'people',
      take(i => {
        const x = of(i)
        const [left, right] = [(x ?? 0) - size.width / 1.6, (x ?? 1) + size.width / 1.6]
        const seen = Math.max(0, Math.min(1, right) - Math.max(0, left)) / (right - left)
        const where = x === null ? null : { x: (Math.max(0, left) + Math.min(1, right)) / 2, y: 0.6, ...size }
        return { share: 0.08 * seen, where: where && { ...where, atBorder: left < 0 || right > 1 } }
      }),
    ).map(f => `${f.word} ${f.from}-${f.to}`)
  const sway = (i: number) => 0.02 * Math.sin(i / 5)
  const walk = (i: number, from: number, to: number) => Math.max(0, Math.min(1, (i - from) / (to - from)))
  expect(acts(i => 0.2 + 0.5 * walk(i, 30, 50))).toEqual(['act 1 0-30', 'on the way 31-49', 'act 2 50-99'])
  // There and back again, hidden for a moment.
  expect(acts(i => (i === 12 ? null : 0.2 + sway(i) + 0.5 * (walk(i, 20, 30) - walk(i, 60, 70))))).toHaveLength(5)
  // Coming and going belong to the acts; who only leans over, goes through the picture or on and on acts once.
  expect(
    acts(i => -0.1 + 0.4 * walk(i, 5, 15) + 0.4 * walk(i, 45, 60) + 0.4 * walk(i, 85, 95)).filter(w =>
      /act|way/.test(w),
    ),
  ).toHaveLength(3)
  for (const x of [
    (i: number) => 0.5 + sway(i) + 0.06 * (walk(i, 30, 35) - walk(i, 60, 65)),
    (i: number) => -0.1 + 0.012 * i,
    (i: number) => 0.1 + 0.008 * i,
    (i: number) => 0.5 + 0.004 * ((i * 37) % 11),
  ])
    expect(acts(x).filter(w => /act|way/.test(w))).toHaveLength(1)
})

it('numbers frames from where they are read, and has nothing to cut where somebody is there all along', () => {
  const frames = take(i => ({ share: i > 0 ? 0.08 : 0 }))
  const people = (first: number) => findings(frames, first).find(f => f.about === 'people')
  expect(people(0)).toMatchObject({ from: 1, sentence: expect.stringContaining('frames 1 to 99'), advice: null })
  expect(people(1)).toMatchObject({ from: 1, sentence: expect.stringContaining('frames 2 to 100') })
  const bumped = take(i => ({ x: i < 30 ? 0 : 2 }))
  expect(findings(bumped, 1).find(f => f.word === 'bumped')?.sentence).toContain('at frame 31,')
})

it('tells shadows that come before and go after somebody, a camera that refocuses, and what is clipped', () => {
  const acting = take(i => ({ share: i >= 40 && i < 60 ? 0.1 : 0, shade: i >= 33 && i < 64 ? 0.02 : 0 }))
  const act = about('people', acting).find(f => f.word === 'act 1')!
  expect(act.sentence).toContain('Their shadow is in the picture 7 frames before and 4 frames after')
  const soft = about(
    'picture',
    take(i => ({ sharp: i < 70 ? 1 : 0.7 })),
  )
  expect(soft).toMatchObject([{ from: 70, word: 'refocused', advice: 'split', isFault: true }])
  expect(soft[0]!.sentence).toContain('softer from there on')
  expect(
    about(
      'picture',
      take(() => ({ sharp: 0.6 })),
    )[0]!.sentence,
  ).toContain('softer than in the plate')
  expect(
    about(
      'picture',
      take(() => ({ bright: 0.06, dark: 0.3 })),
    ).map(f => f.sentence.slice(0, 22)),
  ).toEqual(['6.0% of the picture is', '30% of the picture is b'.slice(0, 22)])
  expect(
    about(
      'picture',
      take(() => ({})),
    ),
  ).toEqual([])
  const grain = (middle: number) => ({ dark: 1, middle, light: 2, size: 1, colour: 0 })
  const grained = (middle: number) =>
    about(
      'picture',
      take(i => (i % 40 === 20 ? { grain: grain(middle) } : {})),
    )
  expect(grained(1.5)).toMatchObject([
    { isFault: false, sentence: expect.stringContaining('1.0 codes in the dark, 1.5') },
  ])
  expect(grained(8)).toMatchObject([{ isFault: true, sentence: expect.stringContaining('That is much') }])
})

it('has its say of an hour at sixty frames a second, too', () => {
  const [frame] = take(() => ({}))
  expect(findings(Array.from({ length: 216_000 }, () => frame!)).map(f => f.about)).toContain('camera')
})

it('takes no frame for empty that shows an elbow still, nor for a plate where a shadow lies', () => {
  const frames = take(i => ({
    share: i < 40 ? 0.08 : i < 43 ? 0.001 : 0.0001,
    shade: i < 50 ? 0.02 : 0.001,
  }))
  expect(about('people', frames).map(f => [f.from, f.to, f.word])).toEqual([
    [0, 42, 'act 1'],
    [50, 99, 'nobody here'],
  ])
})

it('tells in one sentence of what comes again and again, and nothing of the focus of a camera in the hand', () => {
  const hunting = take(i => ({ sharp: (i / 15) & 1 ? 1 : 0.7 }))
  const [focus, ...more] = about('picture', hunting)
  expect(focus).toMatchObject({ from: 15, word: 'refocused', isFault: true })
  expect(focus!.sentence).toMatch(/refocuses \d+ times from frame 15 to/)
  expect(more).toEqual([])
  expect(
    about(
      'picture',
      hunting.map((seen, i) => ({ ...seen, movement: { ...seen.movement, x: i % 2 } })),
    ),
  ).toEqual([])
  const blinking = about(
    'light',
    take(i => ({ light: (i / 15) & 1 ? 1.3 : 1 })),
  )
  expect(blinking).toMatchObject([{ from: 15, isFault: true, sentence: expect.stringMatching(/changes \d+ times/) }])
})

it('says where somebody stands in the plate, and takes no frame for empty by it', () => {
  const frames = take(i => ({ share: i < 30 ? 0 : 0.05 }))
  expect(findings(frames).some(f => f.word === 'nobody here')).toBe(true)
  const found = findings([...frames.slice(0, -1), { ...frames.at(-1)!, occupied: 0.04 }])
  expect(found.some(f => f.word === 'nobody here')).toBe(false)
  expect(found.find(f => f.isFault)).toMatchObject({ advice: 'empty', sentence: expect.stringContaining('4.0%') })
})
