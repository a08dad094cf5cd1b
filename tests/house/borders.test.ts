import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { join, relative } from 'node:path'
import { describe, expect, test } from 'vitest'
import { ALL_ROUTES } from '#shared/contract/all-routes'
import * as rules from './rules'
import { allImports, readSources } from './source'

const ROOT = process.cwd()
const sources = readSources(ROOT)

function filesBelow(dir: string): string[] {
  return readdirSync(dir).flatMap((n) =>
    statSync(join(dir, n)).isDirectory() ? filesBelow(join(dir, n)) : [join(dir, n)],
  )
}

describe('borders of the house', () => {
  test('there is something to look at', () => {
    expect(sources.size).toBeGreaterThan(300)
    expect(allImports(sources).length).toBeGreaterThan(1000)
  })
  test.each([
    ['imports follow the arrows between layers', rules.wrongArrows],
    ['imports and statements go only downward between areas', rules.wrongRanks],
    ['every excuse excuses something', rules.idleExcuses],
    ['every area has a rank', rules.unrankedAreas],
    ['no module comes back to itself', rules.circles],
    ['statements stand only in the stores and reads of an area', rules.strayStatements],
    ['statements name tables and columns through the schema', rules.namedByHand],
    ['no use case takes a second connection', rules.secondConnections],
    ['the core knows no clock, no chance and no framework', rules.impureCore],
    ['the server has one clock', rules.otherClocks],
    ['no line is longer than 120', rules.longLines],
  ])('%s', (_, rule) => {
    expect(rule(sources)).toEqual([])
  })
})

describe('routes', () => {
  const api = join(ROOT, 'server/api')
  const onDisk = filesBelow(api)
    .map((f) => relative(api, f))
    .filter((f) => f !== '[...path].ts')

  test('every file below server/api is a route that is described, and every described route has its file', () => {
    const described = ALL_ROUTES.map(
      (r) => `${r.path.replace('/api/', '').replace(/\{(\w+)\}/g, '[$1]')}.${r.method.toLowerCase()}.ts`,
    )
    expect([...onDisk].sort()).toEqual([...described].sort())
  })
  test('a route file is a path and a method, under 20 lines', () => {
    for (const f of onDisk) expect([f, readFileSync(join(api, f), 'utf8').split('\n').length < 20]).toEqual([f, true])
  })
})

describe('what the browser gets', () => {
  test('no server code is in its bundle', () => {
    const bundle = filesBelow(join(ROOT, '.output/public/_nuxt'))
      .filter((f) => f.endsWith('.js'))
      .map((f) => readFileSync(f, 'utf8'))
      .join('\n')
    expect(bundle.length).toBeGreaterThan(50_000)
    for (const marker of ['DATABASE_URL', 'budget_entry', 'pg_notify', 'REKKO_SESSION_SECRET', 'for update', 'drizzle'])
      expect([marker, bundle.includes(marker)]).toEqual([marker, false])
  })
})

describe('what the project says of itself', () => {
  test('every file that a page of the docs names is there', () => {
    const named = filesBelow(join(ROOT, 'docs'))
      .filter((f) => f.endsWith('.md'))
      .flatMap((f) => [...readFileSync(f, 'utf8').matchAll(/`((?:\w[\w-]*\/)+[\w.-]+\.(?:ts|vue|md|sql|mjs))`/g)])
      .map((m) => m[1] ?? '')
      .filter((f) => /^(app|core|demo|docs|scripts|server|shared|stand-ins|tests)\//.test(f))
    expect(named.length).toBeGreaterThan(60)
    expect([...new Set(named)].filter((f) => !existsSync(join(ROOT, f)))).toEqual([])
  })
  test('no registry host stands in the lock file or settings', () => {
    for (const f of ['package-lock.json', '.npmrc'])
      expect(readFileSync(join(ROOT, f), 'utf8')).not.toMatch(/"resolved": "http|registry *=/)
  })
})
