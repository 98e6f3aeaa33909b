// A browser that may be killed, and a server to go with it.

import { type ChildProcess, spawn } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { type Browser, chromium, type Page } from '@playwright/test'
import { CHROMIUM_FLAGS } from '../e2e/fixtures/chromium'

const root = fileURLToPath(new URL('../', import.meta.url))

export async function startServer(): Promise<{ address: string; stop: () => void }> {
  const port = 4900 + (process.pid % 90)
  const server = spawn(process.execPath, ['build/node/server.js'], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, PORT: String(port) },
  })
  await new Promise(resolve => server.stdout!.once('data', resolve))
  return { address: `http://127.0.0.1:${port}/`, stop: () => void server.kill() }
}

export interface Running {
  page: Page
  /** Ends every process of the browser at once, as a crash or a power cut would. */
  kill(): Promise<void>
}

/** Starts Chromium on a profile folder, with an empty page. */
export async function startBrowser(profile: string): Promise<Running> {
  const child: ChildProcess = spawn(
    process.env.CHROMIUM ?? '/usr/bin/chromium',
    [
      '--headless=new',
      ...CHROMIUM_FLAGS,
      '--remote-debugging-port=0',
      `--user-data-dir=${profile}`,
      '--window-size=1280,800',
      'about:blank',
    ],
    { stdio: ['ignore', 'ignore', 'pipe'], detached: true },
  )
  const endpoint = await new Promise<string>((resolve, reject) => {
    let said = ''
    child.stderr!.on('data', data => {
      said += data
      const found = /DevTools listening on (ws:\S+)/.exec(said)
      if (found) resolve(found[1]!)
    })
    child.once('exit', code => reject(new Error(`Chromium ended with ${code}: ${said.slice(-500)}`)))
  })
  const browser: Browser = await chromium.connectOverCDP(endpoint)
  const context = browser.contexts()[0]!
  const page = context.pages()[0] ?? (await context.newPage())
  return {
    page,
    async kill() {
      const gone = new Promise(resolve => child.once('exit', resolve))
      process.kill(-child.pid!, 'SIGKILL')
      await gone
      await browser.close().catch(() => {})
    },
  }
}
