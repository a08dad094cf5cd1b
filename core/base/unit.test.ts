import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { UNITS } from '#core/base/unit'

test('every unit is a code of UN/ECE Recommendation 20, as listed in the registry package @e-invoice-eu/core', () => {
  const dir = join(process.cwd(), 'node_modules/@e-invoice-eu/core/dist')
  const lists = readdirSync(dir, { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith('.cjs') || f.endsWith('.js'))
    .map((f) => readFileSync(join(dir, f), 'utf8'))
    .filter((t) => t.includes('KGM'))
  expect(lists.length).toBeGreaterThan(0)
  for (const code of Object.keys(UNITS))
    expect([
      code,
      lists.some((text) => new RegExp(`["']${code}["']`).test(text) || new RegExp(`["']X${code}["']`).test(text)),
    ]).toEqual([code, true])
})
