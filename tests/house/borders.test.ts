import { readdirSync, readFileSync, statSync } from 'node:fs'
import { dirname, join, relative, resolve } from 'node:path'
import { describe, expect, test } from 'vitest'
import { ALL_ROUTES } from '#shared/contract/all-routes'

const ROOT = process.cwd()
const LAYERS = ['core', 'shared', 'server', 'app', 'stand-ins', 'demo', 'scripts', 'tests'] as const
type Layer = (typeof LAYERS)[number]

/** Which layers a layer may import from, itself besides. */
const ARROWS: Record<Layer, readonly Layer[]> = {
  core: [],
  shared: ['core'],
  server: ['core', 'shared'],
  app: ['core', 'shared'],
  'stand-ins': [],
  demo: ['core', 'shared', 'server'],
  scripts: ['core', 'shared', 'server', 'demo'],
  tests: ['core', 'shared', 'server', 'demo', 'scripts'],
}

/** The ranks of areas: imports go only downward, or stay in the area. Folders that carry every area stand outside. */
const RANKS: Record<string, number> = {
  base: 0,
  http: 0,
  db: 0,
  files: 0,
  queue: 0,
  live: 0,
  mail: 1,
  people: 1,
  settings: 1,
  audit: 1,
  session: 1,
  supplier: 2,
  catalogue: 2,
  budget: 2,
  approval: 2,
  requisition: 4,
  raise: 4,
  decide: 4,
  trail: 4,
  order: 6,
  desk: 6,
  regulars: 7,
  find: 8,
}
/** What serves all areas on the server knows some of them: each with its reason. */
const KNOWN = new Set([
  'server/http/route.ts -> people', // a route knows who asks
  'server/queue/work.ts -> *', // the queue's work carries out what every area left for later
  'server/live/hub.ts -> people',
  'server/live/hub.ts -> requisition', // who may hear of a change
  'server/db/migrate.ts -> queue', // its queues are made in the migration step
  'server/people/read-me.ts -> requisition', // what waits for a person is counted there
  'server/people/sign-in.ts -> http',
  'app/components/base/AppHeader.vue -> session',
  'server/mail/send-mail.ts -> settings',
  'server/settings/load-organisation.ts -> *', // an organisation is entered whole
  'core/budget/effect.ts -> base',
  'server/budget/reads.ts -> requisition', // a budget line as a requisition needs it
])

function filesBelow(dir: string): string[] {
  return readdirSync(dir).flatMap((name) => {
    const path = join(dir, name)
    if (name === 'node_modules' || name === 'migrations') return []
    return statSync(path).isDirectory() ? filesBelow(path) : /\.(ts|vue|mjs)$/.test(name) ? [path] : []
  })
}
const files = LAYERS.flatMap((layer) => filesBelow(join(ROOT, layer)))

interface Import {
  from: string
  to: string
  typeOnly: boolean
}
function importsOf(file: string): Import[] {
  const text = readFileSync(file, 'utf8')
  const found = [
    ...text.matchAll(/(?:import|export)\s+(type\s+)?[^'"]*?from\s+['"]([^'"]+)['"]/g),
    ...[...text.matchAll(/import\(\s*['"]([^'"]+)['"]\s*\)/g)].map(
      (m) => [m[0], '', m[1]] as unknown as RegExpExecArray,
    ),
  ]
  return found.flatMap((m) => {
    const spec = m[2] ?? ''
    const path = spec.startsWith('#core/')
      ? join(ROOT, 'core', spec.slice(6))
      : spec.startsWith('#shared/')
        ? join(ROOT, 'shared', spec.slice(8))
        : spec.startsWith('~/')
          ? join(ROOT, 'app', spec.slice(2))
          : spec.startsWith('.')
            ? resolve(dirname(file), spec)
            : null
    if (path === null) return []
    const to = files.find((f) => f === path || f === `${path}.ts` || f.replace(/\.(ts|mjs|vue)$/, '') === path)
    return to === undefined
      ? []
      : [{ from: relative(ROOT, file), to: relative(ROOT, to), typeOnly: m[1] !== undefined }]
  })
}
const imports = files.flatMap(importsOf)
const layerOf = (path: string) => path.split('/')[0] as Layer
const isTest = (path: string) => path.endsWith('.test.ts')
/** The area of a file: its folder below the layer (below components, composables and pages in the app). */
function areaOf(path: string): string {
  const parts = path.split('/')
  if (parts[0] === 'app') return parts[1] === 'components' || parts[1] === 'composables' ? (parts[2] ?? '') : ''
  if (parts[0] === 'shared')
    return parts[1] === 'contract' || parts[1] === 'words' ? (parts[2] ?? '').replace('.ts', '') : ''
  return parts.length > 2 ? (parts[1] ?? '') : ''
}

describe('borders of the house', () => {
  test('there is something to look at', () => {
    expect(files.length).toBeGreaterThan(100)
    expect(imports.length).toBeGreaterThan(300)
  })

  test('imports follow the arrows between layers', () => {
    const wrong = imports.filter(
      (i) => !isTest(i.from) && layerOf(i.from) !== layerOf(i.to) && !ARROWS[layerOf(i.from)].includes(layerOf(i.to)),
    )
    expect(wrong).toEqual([])
  })

  test.each(['core', 'server'] as const)('imports in %s go only downward between areas', (layer) => {
    const wrong = imports.filter((i) => {
      if (
        layerOf(i.from) !== layer ||
        layerOf(i.to) !== layer ||
        isTest(i.from) ||
        i.from.startsWith('server/api/') ||
        i.from.startsWith('server/plugins/')
      )
        return false
      const [a, b] = [areaOf(i.from), areaOf(i.to)]
      if (a === b || a === '' || b === '' || KNOWN.has(`${i.from} -> ${b}`) || KNOWN.has(`${i.from} -> *`)) return false
      return (RANKS[a] ?? -1) < (RANKS[b] ?? 99)
    })
    expect(wrong).toEqual([])
  })

  test('every area has a rank', () => {
    const areas = new Set(
      files
        .map((f) => relative(ROOT, f))
        .filter(
          (f) =>
            f.startsWith('core/') ||
            (f.startsWith('server/') && !f.startsWith('server/api/') && !f.startsWith('server/plugins/')),
        )
        .map(areaOf)
        .filter((a) => a !== ''),
    )
    expect([...areas].filter((a) => !(a in RANKS))).toEqual([])
  })

  test('no module comes back to itself', () => {
    const next = new Map<string, string[]>()
    for (const i of imports) if (!i.typeOnly && !isTypeImport(i)) next.set(i.from, [...(next.get(i.from) ?? []), i.to])
    const done = new Set<string>()
    const circles: string[] = []
    const walk = (at: string, path: string[]): void => {
      if (path.includes(at)) {
        circles.push([...path.slice(path.indexOf(at)), at].join(' -> '))
        return
      }
      if (done.has(at)) return
      for (const to of next.get(at) ?? []) walk(to, [...path, at])
      done.add(at)
    }
    for (const file of next.keys()) walk(file, [])
    expect(circles).toEqual([])
  })

  test('SQL is written only in the stores and reads of an area', () => {
    const allowed =
      /(store|reads|list-\w[\w-]*|visible|read-order|read-me|health|idempotency|notify|enqueue|rows|migrate|client)\.ts$|schema\//
    const wrong = files
      .map((f) => relative(ROOT, f))
      .filter(
        (f) =>
          f.startsWith('server/') && !allowed.test(f) && /from 'drizzle-orm'/.test(readFileSync(join(ROOT, f), 'utf8')),
      )
    expect(wrong).toEqual(['server/settings/load-organisation.ts'].filter((f) => wrong.includes(f)))
  })

  test('the core knows no clock, no chance and no framework', () => {
    const wrong = files
      .filter((f) => f.startsWith(join(ROOT, 'core')) && !isTest(f))
      .filter((f) =>
        /Date\.now|new Date\(\)|Math\.random|from 'vue'|from 'node:|process\.|console\./.test(readFileSync(f, 'utf8')),
      )
    expect(wrong).toEqual([])
  })
})

function isTypeImport(i: Import): boolean {
  const text = readFileSync(join(ROOT, i.from), 'utf8')
  // An import whose names are all marked as types is none at run time.
  return [...text.matchAll(/import\s+\{([^}]*)\}\s+from\s+['"]([^'"]+)['"]/g)].some(
    (m) =>
      i.to.replace(/\.(ts|vue)$/, '').endsWith(
        (m[2] ?? '')
          .replace(/^[#~.]*\/?(core\/|shared\/)?/, '')
          .replace(/^(\.\.\/)+/, '')
          .replace(/\.(ts|vue)$/, ''),
      ) && (m[1] ?? '').split(',').every((n) => n.trim() === '' || n.trim().startsWith('type ')),
  )
}

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
    const bundle = filesOf(join(ROOT, '.output/public/_nuxt'))
      .filter((f) => f.endsWith('.js'))
      .map((f) => readFileSync(f, 'utf8'))
      .join('\n')
    expect(bundle.length).toBeGreaterThan(50_000)
    for (const marker of ['DATABASE_URL', 'budget_entry', 'pg_notify', 'REKKO_SESSION_SECRET', 'for update', 'drizzle'])
      expect([marker, bundle.includes(marker)]).toEqual([marker, false])
  })
})

function filesOf(dir: string): string[] {
  return readdirSync(dir).flatMap((n) =>
    statSync(join(dir, n)).isDirectory() ? filesOf(join(dir, n)) : [join(dir, n)],
  )
}

describe('what the project says of itself', () => {
  test('no registry host stands in the lock file or settings', () => {
    for (const f of ['package-lock.json', '.npmrc'])
      expect(readFileSync(join(ROOT, f), 'utf8')).not.toMatch(/"resolved": "http|registry *=/)
  })
})
