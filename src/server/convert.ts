// Conversion of footage that a browser cannot read: it comes in pieces, is converted beside, and is fetched and forgotten.
import { type ChildProcess, fork } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { createReadStream, rmSync, statSync } from 'node:fs'
import { mkdtemp, open, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { extname, join } from 'node:path'
import { Readable } from 'node:stream'
import { fileURLToPath } from 'node:url'
import { Hono } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { writeAll } from '../media/write-all'
import type { ConvertNews, ConvertOrder } from './converter'

/** Bytes of a film, bytes of a piece, films at once. */
const MOST_BYTES = 20e9
const PIECE_BYTES = 16 * 2 ** 20
const MOST_JOBS = 2
/** Milliseconds without a word from the page after which it is taken to have gone. */
const FORGOTTEN = 60_000
/** A page of another origin cannot send this without being asked for leave, which it is not given. */
const OURS = 'x-jolly-ghost'

interface Job {
  name: string
  bytes: number
  received: number
  folder: string
  child: ChildProcess | null
  share: number
  startedAt: number
  problem: string | null
  isDone: boolean
  heardAt: number
}

const TOO_MANY = `${MOST_JOBS} films are being converted. Wait until one of them is done.`

const input = (job: Job) => join(job.folder, 'in')
const output = (job: Job) => join(job.folder, 'out.mov')

/** Built, the converter lies beside this file as JavaScript; in tests it is the source itself. */
const KIND = extname(fileURLToPath(import.meta.url))

function begin(job: Job): void {
  job.startedAt = Date.now()
  const child = fork(fileURLToPath(new URL(`./converter${KIND}`, import.meta.url)), {
    cwd: fileURLToPath(new URL('../../', import.meta.url)),
    execArgv: KIND === '.ts' ? ['--import', 'tsx'] : [],
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  })
  job.child = child
  child.on('message', (news: ConvertNews) => {
    if ('share' in news) job.share = news.share
    else if ('problem' in news) job.problem = news.problem
    else job.isDone = true
  })
  child.once('exit', () => {
    job.child = null
    if (!job.isDone) job.problem ??= `“${job.name}” cannot be converted here either: the converter broke down over it.`
  })
  child.send({ path: input(job), name: job.name, out: output(job) } satisfies ConvertOrder)
}

/** The routes under `/convert`. `end` stops everything and leaves nothing behind. */
export function makeConversion() {
  const jobs = new Map<string, Job>()

  async function forget(id: string): Promise<void> {
    const job = jobs.get(id)
    if (!job) return
    jobs.delete(id)
    const { child } = job
    if (child) {
      const gone = new Promise(resolve => child.once('exit', resolve))
      child.kill('SIGKILL')
      await gone
    }
    await rm(job.folder, { recursive: true, force: true })
  }
  const watch = setInterval(() => {
    for (const [id, job] of jobs) if (Date.now() - job.heardAt > FORGOTTEN) void forget(id)
  }, 5000)
  watch.unref()

  const app = new Hono<{ Variables: { job: Job } }>()
  app.use(async (c, next) => {
    if (c.req.method !== 'GET' && c.req.header(OURS) === undefined) return c.text('Only for this app’s own pages.', 403)
    return next()
  })
  app.use(bodyLimit({ maxSize: PIECE_BYTES, onError: c => c.json({ problem: 'The piece is too large.' }, 413) }))
  app.get('/', c => c.json({ most: MOST_BYTES }))
  app.post('/', async c => {
    const said = (await c.req.json().catch(() => null)) as { name?: unknown; bytes?: unknown } | null
    const { name, bytes } = said ?? {}
    if (typeof name !== 'string' || typeof bytes !== 'number' || !Number.isInteger(bytes) || bytes < 1) {
      return c.json({ problem: 'A film has a name and a length.' }, 400)
    }
    if (bytes > MOST_BYTES)
      return c.json({ problem: `“${name.slice(0, 80)}” is larger than ${MOST_BYTES / 1e9} GB.` }, 413)
    if (jobs.size >= MOST_JOBS) return c.json({ problem: TOO_MANY }, 429)
    const id = randomUUID()
    const heardAt = Date.now()
    // Taken at once, so that many asked for together are no more than a few.
    const job: Job = {
      name: name.slice(0, 200),
      bytes,
      received: 0,
      folder: '',
      child: null,
      share: 0,
      startedAt: 0,
      problem: null,
      isDone: false,
      heardAt,
    }
    jobs.set(id, job)
    job.folder = await mkdtemp(join(tmpdir(), 'jolly-ghost-convert-'))
    return c.json({ id })
  })
  app.use('/:id/*', async (c, next) => {
    const job = jobs.get(c.req.param('id'))
    if (!job) return c.json({ problem: 'There is no such conversion any more.' }, 404)
    job.heardAt = Date.now()
    c.set('job', job)
    return next()
  })
  app.put('/:id/piece', async c => {
    const job = c.get('job')
    const piece = new Uint8Array(await c.req.arrayBuffer())
    if (Number(c.req.query('at')) !== job.received || job.received + piece.length > job.bytes || job.startedAt) {
      return c.json({ problem: 'The piece does not follow the one before.' }, 409)
    }
    // Claimed before it is written, so that the same piece sent twice is refused once.
    const at = job.received
    job.received += piece.length
    try {
      const file = await open(input(job), at === 0 ? 'w' : 'r+')
      await writeAll(file, piece, at).finally(() => file.close())
    } catch (error) {
      job.problem = `“${job.name}” cannot be kept for converting (${error instanceof Error ? error.message : String(error)}).`
      return c.json({ problem: job.problem }, 507)
    }
    if (job.received === job.bytes) begin(job)
    return c.json({ received: job.received })
  })
  app.get('/:id/state', c => {
    const { share, startedAt, problem, isDone } = c.get('job')
    const passed = (Date.now() - startedAt) / 1000
    const left = share > 0.02 ? Math.ceil((passed / share) * (1 - share)) : null
    return c.json({ share, left, problem, isDone })
  })
  app.get('/:id/film', c => {
    const job = c.get('job')
    if (!job.isDone) return c.json({ problem: 'It is not converted yet.' }, 409)
    const path = output(job)
    c.header('content-type', 'video/quicktime')
    c.header('content-length', String(statSync(path).size))
    return c.body(Readable.toWeb(createReadStream(path)) as ReadableStream)
  })
  app.delete('/:id', async c => {
    await forget(c.req.param('id'))
    return c.body(null, 204)
  })
  return {
    app,
    end() {
      clearInterval(watch)
      for (const job of jobs.values()) {
        job.child?.kill('SIGKILL')
        if (job.folder) rmSync(job.folder, { recursive: true, force: true })
      }
      jobs.clear()
    },
  }
}
