import { expect, it } from 'vitest'
import { printable } from './printable'

it('shows what would steer a terminal instead of sending it on', () => {
  const name = '\u001b]0;title\u0007\u001b[2Jred\u202egnp.exe\r\u009b31m'
  expect(printable(name)).toBe('\\u001b]0;title\\u0007\\u001b[2Jred\\u202egnp.exe\\u000d\\u009b31m')
  expect(printable('Act “B”, rechts\tund\nweiter: 日本 👻')).toBe('Act “B”, rechts\tund\nweiter: 日本 👻')
})
