import { defineConfig } from '@playwright/test'
import { CHROMIUM_FLAGS } from './e2e/fixtures/chromium'

export default defineConfig({
  testDir: 'e2e',
  // What is waited for comes in a second or two; on a machine that others keep busy it may take far longer, and is right still.
  timeout: 480_000,
  expect: { timeout: 120_000 },
  workers: 2,
  // So that neither of them is left with a long file at the end.
  fullyParallel: true,
  // Elsewhere the processors may be shared with others who need them at the same moment.
  retries: process.env.CI ? 1 : 0,
  forbidOnly: !!process.env.CI,
  use: {
    baseURL: process.env.BASE_URL ?? 'http://127.0.0.1:4141',
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    // A page that waits is painted once, not sixty times a second.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
      args: CHROMIUM_FLAGS,
    },
  },
})
