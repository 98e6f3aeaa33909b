// The terminal program as it is called.
import { execFile } from 'node:child_process'
import { mkdir, readdir, readFile, stat, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { decode } from 'fast-png'
import { zipSync } from 'fflate'
import { beforeAll, describe, expect, it } from 'vitest'
import { exportFrame } from '../media/export'
import { makeClip, steady, temporaryFolder } from '../testing/clips'
import { startEngine } from './engine'
import { findProject } from './projects'

const root = fileURLToPath(new URL('../../', import.meta.url))
let folder: string
beforeAll(async () => {
  folder = await temporaryFolder()
})

async function ghost(...args: string[]): Promise<{ out: string; err: string; code: number }> {
  try {
    const { stdout, stderr } = await promisify(execFile)(process.execPath, [join(root, 'bin/ghost.mjs'), ...args])
    return { out: stdout, err: stderr, code: 0 }
  } catch (error) {
    const { stdout, stderr, code } = error as { stdout: string; stderr: string; code: number }
    return { out: stdout, err: stderr, code }
  }
}

describe('ghost', () => {
  it('tells what a project and a media file are, and what it can do', async () => {
    const project = JSON.parse((await ghost('info', 'two-at-the-counter', '--json')).out)
    expect(project).toMatchObject({ kind: 'project', shot: { name: 'Two at the counter', length: 184 } })
    const clip = await ghost('info', join(root, 'demo/clips/clockmaker-left.mp4'))
    expect(clip.out).toMatch(/1280×720, 30 fps, 6\.13 s/)
    const help = await ghost('help')
    expect([help.code, help.out]).toEqual([0, expect.stringContaining('ghost follow')])
  })

  it('cuts somebody out by a plate, as grey pictures numbered like the take', async () => {
    const [out, shadow] = [join(folder, 'alpha'), join(folder, 'shadow')]
    const clip = (name: string) => join(root, `demo/clips/${name}.mp4`)
    const named = ['--take', clip('clockmaker-left'), '--plate', clip('empty-shop')]
    const { code, err } = await ghost('cutout', ...named, '--out', out, '--shadow', shadow, '--frames', '75')
    expect([code, err]).toEqual([0, expect.stringContaining('1 of 1')])
    const [alpha, dark] = await Promise.all([out, shadow].map(async f => decode(await readFile(join(f, '0075.png')))))
    expect([alpha!.width, alpha!.height, alpha!.channels, dark!.width]).toEqual([1280, 720, 1, 1280])
    const at = (png: typeof alpha, x: number, y: number) => png!.data[y * 1280 + x]
    expect([at(alpha, 440, 240), at(alpha, 280, 440), at(alpha, 900, 600)]).toEqual([255, 0, 0])
    expect(at(dark, 280, 440)).toBeGreaterThan(100)
    const beside = join(folder, 'beside')
    expect((await ghost('cutout', ...named, '--out', beside, '--frames', '74-76', '--threads', '2')).code).toBe(0)
    expect(await readdir(beside)).toEqual(['0074.png', '0075.png', '0076.png'])
    expect(Buffer.compare(await readFile(join(beside, '0075.png')), await readFile(join(out, '0075.png')))).toBe(0)
    for (const [args, said] of [
      [['cutout', ...named, '--out', out, '--threads', '0'], /1 to 64/],
      [['cutout', '--out', out], /which take/],
      [['cutout', '--take', clip('nobody'), '--out', out], /no file/],
      [['cutout', ...named, '--out', out, '--frames', '184'], /The take has frames 0 to 183/],
      [['plate', clip('empty-shop')], /where to write/],
    ] as const) {
      const refused = await ghost(...args)
      expect(refused.code).toBe(2)
      expect(refused.err).toMatch(said)
    }
  })

  it('follows a point through a take, there and back', async () => {
    const take = join(root, 'demo/clips/pendulum.mp4')
    const { out, code } = await ghost('follow', '--take', take, '--at', '640,321', '--from', '12', '--json')
    const places: { frame: number; x: number; y: number; isLost: boolean }[] = JSON.parse(out)
    expect([code, places.length, places[12]]).toEqual([0, 150, { frame: 12, x: 640, y: 321, sure: 1, isLost: false }])
    // Of the wall, which stands still.
    for (const { x, y, isLost } of places) expect([isLost, Math.hypot(x - 640, y - 321) < 0.3]).toEqual([false, true])
    expect((await ghost('follow', '--take', take, '--at', 'here')).err).toMatch(/which point/)
    expect((await ghost('follow', '--take', take, '--at', '9999,5')).err).toMatch(/outside of the picture/)
  })

  it('follows something flat by its corners through a stretch of a take, from before it comes into the picture', async () => {
    const take = join(root, 'demo/clips/trolley-morning.mp4')
    const crate = '412,405 530,412 530,520 412,525'
    const named = ['follow', '--take', take, '--corners', crate]
    const { out, code } = await ghost(...named, '--from', '90', '--frames', '40-110', '--json')
    const told: { frame: number; corners: { x: number; y: number }[] | null; isLost: boolean }[] = JSON.parse(out)
    expect([code, told.length]).toEqual([0, 71])
    const rows = Object.fromEntries(told.map(row => [row.frame, row]))
    expect(rows[90]!.corners![1]).toEqual({ x: 530, y: 412 })
    // It rolls by at an even pace, jolting a little.
    const pace = (rows[110]!.corners![1]!.x - rows[70]!.corners![1]!.x) / 40
    for (let frame = 55; frame <= 110; frame += 5) {
      for (const [i, start] of [412, 530, 530, 412].entries()) {
        const { x, y } = rows[frame]!.corners![i]!
        expect(Math.abs(x - start - pace * (frame - 90))).toBeLessThan(1)
        expect(Math.abs(y - [405, 412, 520, 525][i]!)).toBeLessThan(2.5)
      }
    }
    // Beyond the border, too.
    expect(rows[40]).toMatchObject({ isLost: false, sure: 0.8 })
    expect(Math.abs(rows[40]!.corners![1]!.x - 530 - pace * (40 - 90))).toBeLessThan(12)
    expect((await ghost('follow', '--take', take, '--corners', '1,1 2,2 3,3')).err).toMatch(/four corners/)
    const outside = await ghost(...named, '--from', '9', '--frames', '20-30')
    expect(outside.err).toMatch(/Frame 9.* not one of the frames 20-30/)
  })

  it('checks takes, and makes plates of them, however little they show', async () => {
    const plain = join(folder, 'plain.mp4')
    await writeFile(
      plain,
      await makeClip({ width: 96, height: 64, times: steady(9, 25), colour: () => [90, 120, 130] }),
    )
    const { out, code } = await ghost('check', plain)
    expect([code, out]).toEqual([
      0,
      expect.stringMatching(
        /stands still.*\n.*light is even.*\n.*Nobody is there from frame 0 to 8.*\n.*grain is 0\.0 codes/,
      ),
    ])
    const [report] = JSON.parse((await ghost('check', plain, '--json')).out)
    expect(report.frames).toHaveLength(9)
    const plate = join(folder, 'plate.png')
    expect((await ghost('plate', plain, plain, '--out', plate)).code).toBe(0)
    const { width, height, data } = decode(await readFile(plate))
    expect([width, height]).toEqual([96, 64])
    expect(new Set(data).size).toBeLessThanOrEqual(6)
  })

  it('says all that it has to say to a reader that is slower than itself', async () => {
    const path = join(folder, 'long.mp4')
    await writeFile(
      path,
      await makeClip({ width: 32, height: 32, times: steady(160, 25), colour: () => [90, 120, 130] }),
    )
    const command = `"${process.execPath}" "${join(root, 'bin/ghost.mjs')}" check "${path}" --json | (sleep 3; cat)`
    const { stdout } = await promisify(execFile)('sh', ['-c', command], { maxBuffer: 2 ** 24 })
    // More than a pipe holds.
    expect(stdout.length).toBeGreaterThan(2 ** 16)
    expect(JSON.parse(stdout)[0].frames).toHaveLength(160)
    const full = promisify(execFile)('sh', ['-c', command.replace(/ \|.*/, ' > /dev/full')])
    await expect(full).rejects.toMatchObject({
      code: 1,
      stderr: expect.stringMatching(/answer cannot be written.*space/),
    })
  })

  it('leaves nothing where there is no room for it, and says so', async () => {
    const empty = join(folder, 'no-room')
    await mkdir(empty)
    // A file may not grow beyond so many blocks; the signal for that is ignored, and writing fails as on a full disk.
    const short = (command: string) =>
      promisify(execFile)(
        'bash',
        ['-c', `trap '' XFSZ; ulimit -f 100; exec "${process.execPath}" bin/ghost.mjs ${command}`],
        {
          cwd: root,
        },
      )
    for (const command of [
      `render open-late --out "${empty}/film.mp4" --frames 0-20`,
      `plate demo/clips/open-late.jpg --out "${empty}/plate.png"`,
    ]) {
      await expect(short(command)).rejects.toMatchObject({ code: 2, stderr: expect.stringMatching(/no larger/) })
      expect(await readdir(empty)).toEqual([])
    }
  })

  it('writes frames that are the core’s own, bit for bit', async () => {
    const frames = join(folder, 'frames')
    expect((await ghost('render', 'two-at-the-counter', '--out', frames, '--frames', '75-76')).code).toBe(0)
    expect(await readdir(frames)).toEqual(['000075.png', '000076.png'])
    const found = await findProject('two-at-the-counter')
    const { k, frames: store } = await startEngine(found)
    const own = await exportFrame(k, store, { shot: found.project.shot, scale: 1 }, 76)
    const png = decode(await readFile(join(frames, '000076.png')))
    const rgba = k.bytes(own.ptr, 1280 * 720 * 4)
    const same = png.data.every((v, i) => v === rgba[Math.floor(i / 3) * 4 + (i % 3)])
    expect(same).toBe(true)
  })

  it('writes the matte of a layer in grey, and says which layers there are', async () => {
    const out = join(folder, 'matte')
    const render = (matte: string) =>
      ghost('render', 'open-late', '--out', out, '--frames', '96', '--scale', '0.5', '--matte', matte)
    expect((await render('She, cut out')).code).toBe(0)
    const { data, width, channels } = decode(await readFile(join(out, '000096.png')))
    const at = (x: number, y: number) => [...data.slice((y * width + x) * channels, (y * width + x) * channels + 3)]
    expect([at(350, 200), at(350, 340), at(100, 100), at(500, 300)]).toEqual([
      [255, 255, 255],
      [255, 255, 255],
      [0, 0, 0],
      [0, 0, 0],
    ])
    const grey = data.filter((v, i) => i % channels === 0 && v > 0 && v < 255).length
    expect(grey / (data.length / channels)).toBeLessThan(0.02)
    const { err, code } = await render('Nobody')
    expect(code).toBe(2)
    expect(err).toMatch(/no layer “Nobody”. It has “She, cut out”, “OPEN”/)
  })

  it('writes a film with a line that tells how far it is', async () => {
    const out = join(folder, 'x.webm')
    const { err, code } = await ghost(
      'render',
      'two-at-the-counter',
      '--out',
      out,
      '--frames',
      '0-9',
      '--scale',
      '0.25',
    )
    expect(code).toBe(0)
    expect(err).toMatch(/10 of 10 frames/)
    expect(JSON.parse((await ghost('info', out, '--json')).out)).toMatchObject({
      picture: { size: { width: 320, height: 180 } },
    })
  })

  it.each([
    [['render', 'nobody', '--out', 'x.mp4'], /no file or demo shot “nobody”/],
    [['render', 'two-at-the-counter'], /where to write/],
    [['render', 'two-at-the-counter', '--out', 'x.avi'], /cannot be written/],
    [['render', 'two-at-the-counter', '--out', 'x.mp4', '--frames', '5-500'], /frames 0 to 183/],
    [['render', 'two-at-the-counter', '--out', 'x.mp4', '--scale', 'nan'], /scale/],
    [['dance', 'x'], /not a command/],
    [['info', '--sideways', 'x'], /sideways/],
  ])('answers %j with a sentence', async (args, said) => {
    const { err, code } = await ghost(...args)
    expect(code).toBe(2)
    expect(err).toMatch(said)
    expect(err).not.toMatch(/ at .*\.ts:/)
  })

  it('says of a film that cannot be read here what makes it readable', async () => {
    const path = join(folder, 'old.avi')
    await writeFile(path, 'RIFF\0\0\0\0AVI LIST')
    const { err, code } = await ghost('check', path)
    expect(code).toBe(2)
    expect(err).toMatch(/“ghost convert” makes such films readable/)
  })

  it('refuses a hostile project file and leaves nothing behind', async () => {
    const path = join(folder, 'bad.zip')
    await writeFile(path, zipSync({ 'project.json': new Uint8Array([123]), '../x': new Uint8Array([1]) }))
    const { err, code } = await ghost('info', path)
    expect(code).toBe(2)
    expect(err).toMatch(/cannot be opened.*\.\.\/x/)
    await expect(stat(join(folder, '..', 'x'))).rejects.toThrow()
  })
})
