// The names that kernels are called with are those that they are written with, in the same order: a swapped pair would be found by nobody.
import { readdir, readFile } from 'node:fs/promises'
import { expect, it } from 'vitest'
import { NAMED_KERNELS, namedKernels } from './named-kernels'

const KERNELS = new URL('../../kernels/', import.meta.url)

it('are named as they are written', async () => {
  const files = (await readdir(KERNELS)).filter(name => name.endsWith('.ts'))
  const sources = await Promise.all(files.map(name => readFile(new URL(name, KERNELS), 'utf8')))
  const written = sources
    .flatMap(source => [...source.matchAll(/export function (\w+)\(([^)]*)\)/g)])
    .map(([, name, given]) => [name, [...given!.matchAll(/(\w+):/g)].map(([, of]) => of)] as const)
  for (const [kernel, names] of Object.entries(NAMED_KERNELS)) {
    expect(written.filter(([name]) => name === kernel).map(([, given]) => given)).toContainEqual([...names])
  }
})

it('give each number in its place', () => {
  const spread = (...given: number[]) => given.reduce((all, v) => all * 10 + v, 0)
  const exported = Object.fromEntries(Object.keys(NAMED_KERNELS).map(kernel => [kernel, spread]))
  const { changeSums } = namedKernels(exported)
  const given = { sums: 7, least: 6, height: 5, width: 4, is: 3, plate: 2, frame: 1 }
  expect(changeSums(given)).toBe(1234567)
})
