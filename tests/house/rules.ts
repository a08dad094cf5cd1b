import ts from 'typescript'
import { allImports, areaOf, isTest, layerOf, parseScript, type Import, type Layer, type Sources } from './source'

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

/**
 * The ranks of areas: imports go only downward, or stay. What carries every area (transport, database, files, queue)
 * lies below them all; what knows every kind of document lies above.
 */
export const RANKS: Record<string, number> = {
  ...{ base: 0, http: 0, db: 0, files: 0, queue: 0, live: 0, environment: 0, clock: 0 },
  ...{ people: 1, settings: 1, audit: 1, mail: 1, context: 1 },
  ...{ document: 2 },
  ...{ supplier: 3, catalogue: 3, agreement: 3, budget: 3, approval: 3, channel: 3, desk: 3 },
  ...{ requisition: 5, raise: 5, decide: 8, 'set-up': 6, mine: 6 },
  ...{
    order: 6,
    owner: 7,
    regulars: 7,
    kinds: 7,
    lists: 7,
    organisation: 7,
    'year-end': 7,
    ordering: 7,
    trail: 8,
    dealings: 8,
    job: 7,
    browse: 8,
    find: 9,
    session: 9,
    personal: 9,
    'look-back': 9,
    upkeep: 9,
    told: 9,
    'first-start': 10,
  },
}

/** What is excused, with its reason. One that excuses nothing any more fails. */
export const EXCUSES: Readonly<Record<string, string>> = {
  'server/http/route.ts -> people': 'a route knows who asks',
  'server/http/route.ts -> context': 'a route makes the context of a use case',
  'server/http/health.ts -> context': 'it is called as a use case',
  'server/queue/work.ts -> *': 'the queue’s work carries out what every area left for later',
  'server/live/hub.ts -> people': 'who may hear of a change',
  'server/live/hub.ts -> kinds': 'who may hear of a change is asked of its kind',
  'server/live/hub.ts -> document': 'who may hear of a change',
  'server/live/hub.ts -> session': 'whoever hears of a change is told what waits for them since',
  'server/settings/load-organisation.ts -> *': 'an organisation is entered whole',
}

const SEPARATE = ['server/api/', 'server/middleware/', 'server/plugins/', 'server/db/schema/']
const isRanked = (path: string): boolean => !isTest(path) && !SEPARATE.some((s) => path.startsWith(s))
const keysOf = (from: string, area: string): string[] => [`${from} -> ${area}`, `${from} -> *`]

export function wrongArrows(sources: Sources): string[] {
  return allImports(sources)
    .filter((i) => !isTest(i.from) && layerOf(i.from) !== layerOf(i.to))
    .filter((i) => !ARROWS[layerOf(i.from)].includes(layerOf(i.to)))
    .map(said)
}

const said = (i: Import): string => `${i.from} -> ${i.to}`

/** Imports that go upward between areas of one layer, excused ones left out. */
export function wrongRanks(sources: Sources): string[] {
  return upward(sources)
    .filter((u) => !keysOf(u.from, u.area).some((k) => k in EXCUSES))
    .map((u) => u.said)
}

interface Upward {
  readonly from: string
  readonly area: string
  readonly said: string
}

function upward(sources: Sources): Upward[] {
  const byImport = allImports(sources)
    .filter((i) => layerOf(i.from) === layerOf(i.to) && ['core', 'server', 'app'].includes(layerOf(i.from)))
    .filter((i) => isRanked(i.from) && !i.to.startsWith('server/db/schema/'))
    .map((i) => ({ from: i.from, area: areaOf(i.to), said: said(i) }))
  const byTable = [...sources].flatMap(([path, text]) =>
    layerOf(path) !== 'server' || !isRanked(path)
      ? []
      : tablesNamedIn(path, text, sources).map((t) => ({
          from: path,
          area: tableAreas(sources).get(t) ?? '',
          said: `${path} reads ${t}`,
        })),
  )
  return [...byImport, ...byTable].filter((u) => {
    const own = areaOf(u.from)
    // Pages compose whatever there is.
    if (own === u.area || u.area === '' || own === '' || u.from.startsWith('app/pages/')) return false
    return (RANKS[own] ?? -1) < (RANKS[u.area] ?? 99)
  })
}

/** Excuses that excuse nothing. */
export function idleExcuses(sources: Sources): string[] {
  const used = new Set(upward(sources).flatMap((u) => keysOf(u.from, u.area)))
  return Object.keys(EXCUSES).filter((k) => !used.has(k))
}

export function unrankedAreas(sources: Sources): string[] {
  const areas = [...sources.keys()].filter((p) => ['core', 'server'].includes(layerOf(p)) && isRanked(p)).map(areaOf)
  return [...new Set(areas)].filter((a) => a !== '' && !(a in RANKS))
}

/** The schema's files are named by area, but for these. */
const SCHEMA_AREAS: Record<string, string | undefined> = { 'request-form': 'requisition', file: 'files' }

let areasOfTables: { readonly of: Sources; readonly areas: ReadonlyMap<string, string> } | null = null

/** The area of each table, by the schema file that describes it. */
function tableAreas(sources: Sources): ReadonlyMap<string, string> {
  if (areasOfTables?.of === sources) return areasOfTables.areas
  const areas = new Map<string, string>()
  for (const [path, text] of sources) {
    if (!path.startsWith('server/db/schema/')) continue
    const name = areaOf(path.replace('server/db/schema/', 'server/'))
    for (const [, table] of text.matchAll(/pgTable\(\s*'(\w+)'/g)) areas.set(table ?? '', SCHEMA_AREAS[name] ?? name)
  }
  areasOfTables = { of: sources, areas }
  return areas
}

/** The tables that statements in a file name, and those of the schema that it imports. */
function tablesNamedIn(path: string, text: string, sources: Sources): string[] {
  const areas = tableAreas(sources)
  const found = new Set<string>()
  const walk = (node: ts.Node): void => {
    if (ts.isTaggedTemplateExpression(node) && node.tag.getText().startsWith('sql')) {
      for (const [, table] of node.template
        .getText()
        .matchAll(/\b(?:from|join|into|update|delete from)\s+"?([a-z_]+)"?/g))
        if (table !== undefined && areas.has(table)) found.add(table)
    }
    if (ts.isImportDeclaration(node) && ts.isStringLiteral(node.moduleSpecifier)) {
      const match = /db\/schema\/([\w-]+)$/.exec(node.moduleSpecifier.text)
      const area = match === null ? null : (SCHEMA_AREAS[match[1] ?? ''] ?? match[1])
      for (const [table, of] of areas) if (of === area && !node.importClause?.isTypeOnly) found.add(table)
    }
    ts.forEachChild(node, walk)
  }
  walk(parseScript(path, text))
  return [...found]
}

/** Modules that come back to themselves; what is imported as a type counts like anything else. */
export function circles(sources: Sources): string[] {
  const next = new Map<string, string[]>()
  for (const i of allImports(sources)) next.set(i.from, [...(next.get(i.from) ?? []), i.to])
  const done = new Set<string>()
  const found: string[] = []
  const walk = (at: string, path: string[]): void => {
    if (path.includes(at)) {
      found.push([...path.slice(path.indexOf(at)), at].join(' -> '))
      return
    }
    if (done.has(at)) return
    for (const to of next.get(at) ?? []) walk(to, [...path, at])
    done.add(at)
  }
  for (const file of next.keys()) walk(file, [])
  return found
}

/** Statements outside the stores and reads of an area. */
export function strayStatements(sources: Sources): string[] {
  const allowed = [
    /^server\/db\//,
    /(^|[/-])(store|reads)\.ts$/,
    /\/visible\.ts$/,
    // They hold no statement of an area: an organisation entered whole, the queue's own, a notice, a type.
    /^server\/(settings\/load-organisation|queue\/enqueue|live\/notify|document\/kind)\.ts$/,
  ]
  return [...sources].flatMap(([path, text]) =>
    layerOf(path) === 'server' && !isTest(path) && !allowed.some((a) => a.test(path)) && /from 'drizzle-orm'/.test(text)
      ? [path]
      : [],
  )
}

/** The tables and columns of the schema, as they are called in the database. */
function namesInSchema(sources: Sources): { readonly tables: Set<string>; readonly columns: Set<string> } {
  const [tables, columns] = [new Set<string>(), new Set<string>()]
  for (const [path, text] of sources) {
    if (!path.startsWith('server/db/schema/')) continue
    for (const [, table] of text.matchAll(/pgTable\(\s*'(\w+)'/g)) tables.add(table ?? '')
    for (const [, key, name] of text.matchAll(/^\s+(\w+): [a-z]\w*\((?:'(\w+)')?/gm)) columns.add(name ?? key ?? '')
  }
  return { tables, columns }
}

/**
 * Tables and columns that a statement names by hand: renamed in the schema, they would go on compiling. What a
 * statement makes for itself (a name for a sum, say) has a name that no column has.
 */
export function namedByHand(sources: Sources): string[] {
  const { tables, columns } = namesInSchema(sources)
  const found: string[] = []
  const look = (path: string, text: string) => {
    // What stands in quotes is a value, and `${}` is what the compiler checks.
    const words = text.replace(/'[^']*'/g, '').matchAll(/(?:\b(from|join|into|update)\s+|(\.))?\b([a-z]\w*)\b/g)
    for (const [, before, dot, word = ''] of words) {
      const isTable = before !== undefined && tables.has(word)
      const isColumn = columns.has(word) && (dot !== undefined || word.includes('_'))
      if (isTable || isColumn) found.push(`${path}: ${word}`)
    }
  }
  for (const [path, text] of sources) {
    if (layerOf(path) !== 'server' || path.startsWith('server/db/') || isTest(path)) continue
    const walk = (node: ts.Node): void => {
      if (ts.isTaggedTemplateExpression(node) && node.tag.getText().startsWith('sql')) {
        const { template } = node
        const parts = ts.isNoSubstitutionTemplateLiteral(template)
          ? [template.text]
          : [template.head.text, ...template.templateSpans.map((s) => s.literal.text)]
        look(path, parts.join('$'))
      }
      ts.forEachChild(node, walk)
    }
    walk(parseScript(path, text))
  }
  return found
}

/** Whoever may open a transaction or a connection of their own: what begins one, and the tasks of the queue. */
const BEGINS: readonly string[] = [
  'server/db/client.ts',
  'server/http/app.ts',
  'server/http/route.ts',
  'server/plugins/start.ts',
  'server/queue/work.ts',
  'server/live/hub.ts',
  'server/audit/lay-chain.ts',
  'server/mail/send-mail.ts',
  'server/decide/take-answer.ts',
  'server/order/file-order.ts',
  'server/order/issue-approved.ts',
  'server/order/put-change-in-force.ts',
  'server/ordering/begin-runs.ts',
  'server/ordering/run-rule.ts',
  'server/order/send-order.ts',
  'server/requisition/mail-approved.ts',
  'server/requisition/send-by-itself.ts',
  'server/regulars/repeat-templates.ts',
  'server/lists/lay-file.ts',
  'server/lists/look-at-laid.ts',
  'server/lists/take-laid.ts',
]

/**
 * Use cases that take a second connection inside their transaction: twelve of them at once would wait for each other.
 */
export function secondConnections(sources: Sources): string[] {
  return allImports(sources)
    .filter((i) => layerOf(i.from) === 'server' && !isTest(i.from) && !BEGINS.includes(i.from))
    .filter((i) => i.names.some((n) => ['inTransaction', 'openDatabase', 'database'].includes(n)))
    .map((i) => `${i.from} takes ${i.names.join(', ')}`)
}

export function impureCore(sources: Sources): string[] {
  const forbidden = /Date\.now|new Date\(\)|Math\.random|from 'vue'|from 'node:|process\.|console\./
  return [...sources].flatMap(([path, text]) =>
    layerOf(path) === 'core' && !isTest(path) && forbidden.test(text) ? [path] : [],
  )
}

/** Moments that the server takes from the machine and not from its one clock. */
export function otherClocks(sources: Sources): string[] {
  const allowed = ['server/clock.ts', 'server/queue/enqueue.ts']
  return [...sources].flatMap(([path, text]) =>
    layerOf(path) === 'server' && !isTest(path) && !allowed.includes(path) && /Date\.now\(|new Date\(\)/.test(text)
      ? [path]
      : [],
  )
}

const LONGEST_LINE = 120

export function longLines(sources: Sources): string[] {
  return [...sources].flatMap(([path, text]) =>
    text.split('\n').flatMap((line, i) => (line.length > LONGEST_LINE ? [`${path}:${i + 1}`] : [])),
  )
}
