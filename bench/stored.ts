// Projects of the browser's own database, changed for a measurement.
import type { Page } from '@playwright/test'
import type { Project, Shot } from '../src/core/shot'

/** The text of a project in the page's database; with `text`, another one is put beside it. */
function exchange(page: Page, id: string, other?: { id: string; text: string }): Promise<string> {
  return page.evaluate(
    ({ id, other }) =>
      new Promise<string>((resolve, reject) => {
        const open = indexedDB.open('jolly-ghost')
        open.onerror = () => reject(open.error)
        open.onsuccess = () => {
          const change = open.result.transaction('projects', 'readwrite')
          const projects = change.objectStore('projects')
          const read = projects.get(id)
          if (other) projects.put({ id: other.id, project: other.text, savedAt: Date.now() })
          change.oncomplete = () => {
            open.result.close()
            resolve(read.result.project)
          }
        }
      }),
    { id, other },
  )
}

/** Puts a copy of the demo that is open beside it, changed and under another id, and opens that. */
export async function openChanged(page: Page, origin: string, id: string, change: (shot: Shot) => void): Promise<void> {
  const project = JSON.parse(await exchange(page, 'two-at-the-counter')) as Project
  change(project.shot)
  // The demo is found by its name.
  project.shot.name = id
  await exchange(page, project.id, { id, text: JSON.stringify({ ...project, id }) })
  await page.goto(`${origin}/shot/${id}`)
  await page.waitForSelector('main[data-ready=true]')
}
