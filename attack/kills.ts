// Browsers that are killed in the middle of work: what was acknowledged must be there, and nothing older than a second lost.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { startBrowser, startServer } from './browser'
import { chance } from './chance'
import { say } from './say'

const SHOT = 'shot/two-at-the-counter'
const name = (page: Page) => page.getByRole('textbox', { name: 'Name of the shot' })
const isReady = (page: Page) => page.locator('main[data-ready=true]').waitFor({ timeout: 60_000 })

/** Edits until the moment of the kill; each edit's number and moment, and the last one that was said to be saved. */
async function edit(page: Page, from: number, until: number) {
  const made: { n: number; at: number }[] = []
  let acknowledged = from
  for (let n = from + 1; Date.now() < until; n++) {
    await name(page).fill(`edit ${n}`)
    await name(page).press('Enter')
    made.push({ n, at: Date.now() })
    // Now and then in a hurry, now and then with a pause in which it is saved.
    if (n % 3 === 0) await page.waitForTimeout(450)
    const said = await page.getByTestId('saving').textContent()
    if (said?.includes('saved') && !said.includes('not')) acknowledged = n
  }
  return { made, acknowledged }
}

export async function killBrowsers(seed: number, count: number): Promise<boolean> {
  const by = chance(seed)
  const profile = mkdtempSync(join(tmpdir(), 'kills-'))
  const server = await startServer()
  let kept = 0
  let lostAcknowledged = 0
  let worst = 0
  let unopened = 0
  try {
    const first = await startBrowser(profile)
    await first.page.goto(server.address)
    await first.page.getByRole('link', { name: 'Open Two at the counter' }).click()
    await isReady(first.page)
    await name(first.page).fill('edit 0')
    await name(first.page).press('Enter')
    await first.page.waitForTimeout(1500)
    await first.kill()
    for (let i = 0; i < count; i++) {
      const running = await startBrowser(profile)
      await running.page.goto(server.address + SHOT)
      await isReady(running.page)
      const until = Date.now() + 300 + by.below(3000)
      const done = await edit(running.page, kept, until)
      const killedAt = Date.now()
      await running.kill()
      const after = await startBrowser(profile)
      await after.page.goto(server.address + SHOT)
      const opened = await isReady(after.page).then(
        () => true,
        () => false,
      )
      if (!opened) unopened++
      else {
        kept = Number(/edit (\d+)/.exec(await name(after.page).inputValue())?.[1])
        if (kept < done.acknowledged) lostAcknowledged++
        const oldest = done.made.find(m => m.n > kept)
        worst = Math.max(worst, oldest ? killedAt - oldest.at : 0)
      }
      await after.kill()
    }
  } finally {
    server.stop()
    rmSync(profile, { recursive: true, force: true })
  }
  say(
    `killed browsers: ${count}; ${lostAcknowledged} lost what was said to be saved, ${unopened} could not open the shot again; the oldest edit lost was ${(worst / 1000).toFixed(2)} s old`,
  )
  return lostAcknowledged === 0 && unopened === 0 && worst <= 1000
}
