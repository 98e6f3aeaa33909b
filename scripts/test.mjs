// `npm test`: everything the tests need, then unit tests and the real interface in headless Chromium.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { firefox, firefoxSmoke } from './firefox.mjs'
import { packages, prepare, root } from './prepare.mjs'

/** The first is the same browser without windows: a fifth less work for two processors. */
const CHROMIUM = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium', '/usr/bin/chromium-browser']
const PACKAGES = ['chromium-headless-shell', 'chromium']

/** Runs a command whose words go to stderr; gives its code. */
async function ran(command, args, env = {}) {
  const [code] = await once(
    spawn(command, args, { cwd: root, stdio: ['ignore', 2, 2], env: { ...process.env, ...env } }),
    'close',
  )
  return code
}

async function chromium() {
  const found = CHROMIUM.find(existsSync)
  if (found) return found
  if (process.getuid?.() !== 0) {
    console.error(
      `The tests need Chromium. Install it with: sudo apt-get update && sudo apt-get install -y ${PACKAGES[0]}`,
    )
    process.exit(1)
  }
  console.error('Installing Chromium…')
  const apt = (...args) => ran('apt-get', args, { DEBIAN_FRONTEND: 'noninteractive' })
  await apt('update', '-q')
  // Older systems have only the second.
  for (const name of PACKAGES) {
    if ((await apt('install', '-y', '-q', '--no-install-recommends', name)) === 0) break
  }
  const installed = CHROMIUM.find(existsSync)
  if (!installed) {
    console.error('Chromium could not be installed.')
    process.exit(1)
  }
  return installed
}

const results = mkdtempSync(join(tmpdir(), 'jolly-ghost-tests-'))

/** What did not pass, in words that stand at the end of all, where they are found. */
const complaints = []

/** Runs one runner; its counts come from the report it writes, and what failed in it. */
async function runner(args, env, report, count) {
  const status = await ran(process.execPath, args, env)
  if (!existsSync(report)) return { passed: 0, failed: 1 }
  const told = JSON.parse(readFileSync(report, 'utf8'))
  const { passed, failed } = count(told)
  complaints.push(...failures(told))
  return { passed, failed: status === 0 ? failed : Math.max(1, failed) }
}

/** Of a report of either runner: names of tests that failed, with the first lines of why. */
function failures(told) {
  const why = message => (message ?? '').split('\n').slice(0, 6).join('\n    ')
  const unit = (told.testResults ?? []).flatMap(file => [
    ...(file.message ? [`${file.name}\n    ${why(file.message)}`] : []),
    ...file.assertionResults
      .filter(test => test.status === 'failed')
      .map(test => `${test.fullName}\n    ${why(test.failureMessages[0])}`),
  ])
  const browser = (told.suites ?? []).flatMap(function within(suite) {
    const own = suite.specs.flatMap(spec =>
      spec.tests
        .filter(test => test.status === 'unexpected' || test.status === 'flaky')
        .map(test => {
          const problem = test.results.find(result => result.error)?.error.message
          return `${spec.title}${test.status === 'flaky' ? ' (passed at its second try)' : ''}\n    ${why(problem)}`
        }),
    )
    return [...own, ...(suite.suites ?? []).flatMap(within)]
  })
  return [...unit, ...browser]
}

packages()
// It comes while the rest is made and tried.
const coming = chromium()
await prepare({ app: true })

const unitReport = join(results, 'unit.json')
const unit = await runner(
  ['node_modules/vitest/vitest.mjs', 'run', '--reporter=default', '--reporter=json', `--outputFile.json=${unitReport}`],
  {},
  unitReport,
  r => ({ passed: r.numPassedTests, failed: r.numFailedTests }),
)

const port = 4600 + (process.pid % 300)
const server = spawn(process.execPath, ['build/node/server.js'], {
  cwd: root,
  stdio: ['ignore', 'pipe', 2],
  env: { ...process.env, PORT: String(port) },
})
await new Promise((resolve, reject) => {
  server.stdout.once('data', resolve)
  server.once('exit', code => reject(new Error(`The server stopped with ${code}.`)))
})
const browserReport = join(results, 'browser.json')
const browser = await runner(
  ['node_modules/@playwright/test/cli.js', 'test', '--reporter=list,json'],
  { PLAYWRIGHT_JSON_OUTPUT_FILE: browserReport, CHROMIUM: await coming, BASE_URL: `http://127.0.0.1:${port}` },
  browserReport,
  r => ({ passed: r.stats.expected + r.stats.flaky, failed: r.stats.unexpected }),
)
const other = firefox() ? await firefoxSmoke(`http://127.0.0.1:${port}`) : { passed: 0, failed: 0 }
server.kill()

const passed = unit.passed + browser.passed + other.passed
const failed = unit.failed + browser.failed + other.failed
for (const complaint of complaints) console.error(`  ✘ ${complaint}`)
process.stdout.write(`${passed} passed, ${failed} failed\n`)
process.exit(failed === 0 && passed > 0 ? 0 : 1)
