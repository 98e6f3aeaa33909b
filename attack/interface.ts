// Hostile files through the real interface: each is opened or refused with a sentence, and what was made opens again.
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import type { Project } from '../src/core/shot'
import { startBrowser, startServer } from './browser'
import { type Attack, clipAttacks } from './clips'
import { projectAttacks } from './projects'
import { say } from './say'

/** Seconds until a file has to be there or refused: the interface's own bound is twenty. */
const HANG = 60_000

type Came = 'opened' | 'refused' | 'hung' | 'not opened again'

async function bring(page: Page, address: string, label: string, path: string): Promise<Came> {
  await page.goto(address)
  await page.getByLabel(label).setInputFiles(path)
  const opened = page.locator('main[data-ready=true]')
  const refused = page.locator('[data-sonner-toast]')
  try {
    await opened.or(refused).first().waitFor({ timeout: HANG })
  } catch {
    return 'hung'
  }
  if (!/\/shot\//.test(page.url())) return 'refused'
  try {
    await opened.waitFor({ timeout: HANG })
    await page.reload()
    await opened.waitFor({ timeout: HANG })
    return 'opened'
  } catch {
    return 'not opened again'
  }
}

export async function attackInterface(
  { project, media }: { project: Project; media: ReadonlyMap<string, Uint8Array> },
  clips: readonly Attack[],
  seed: number,
  count: number,
): Promise<boolean> {
  const folder = mkdtempSync(join(tmpdir(), 'interface-'))
  const server = await startServer()
  const running = await startBrowser(join(folder, 'profile'))
  const tally: Record<Came, number> = { opened: 0, refused: 0, hung: 0, 'not opened again': 0 }
  const errors: string[] = []
  running.page.on('pageerror', error => errors.push(error.message))
  const half = Math.ceil(count / 2)
  const attacks = [
    ...[...projectAttacks(project, media, seed + 1, half)].map(a => ({ ...a, label: 'Project file' })),
    ...[...clipAttacks(clips, seed + 1, count - half)].map(a => ({ ...a, label: 'Takes for a new shot' })),
  ]
  try {
    for (const { name, data, label } of attacks) {
      const path = join(folder, name)
      writeFileSync(path, data)
      const came = await bring(running.page, server.address, label, path)
      tally[came]++
      if (came !== 'opened' && came !== 'refused') errors.push(`${name}: ${came}`)
      rmSync(path)
    }
  } finally {
    await running.kill()
    server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
  say(
    `the interface: ${tally.opened} opened and opened again, ${tally.refused} refused with a sentence, ${errors.length} broken`,
  )
  for (const line of errors) say(`  ${line}`)
  return errors.length === 0
}
