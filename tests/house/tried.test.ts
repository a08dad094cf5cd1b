import { describe, expect, test } from 'vitest'
import { ESLint } from 'eslint'
import * as rules from './rules'
import { readSources, type Sources } from './source'

/** The house with something added: each rule is tried on what it must refuse. */
const house = readSources(process.cwd())
const withFiles = (files: Record<string, string>): Sources => new Map([...house, ...Object.entries(files)])

describe('each rule refuses what it is for', () => {
  test('an import against the arrows, also by a name in a comment’s company', () => {
    const sources = withFiles({ 'core/base/odd.ts': "// from 'x'\nimport { route } from '../../server/http/route'\n" })
    expect(rules.wrongArrows(sources)).toContain('core/base/odd.ts -> server/http/route.ts')
  })
  test('an area that imports one above its rank, in the server and in the app', () => {
    const sources = withFiles({
      'server/budget/odd.ts': "import { REQUISITION } from '../requisition/kind'\n",
      'app/components/base/Odd.vue': "<script setup>\nimport X from '~/components/raise/LineRow.vue'\n</script>\n",
    })
    expect(rules.wrongRanks(sources)).toEqual([
      'server/budget/odd.ts -> server/requisition/kind.ts',
      'app/components/base/Odd.vue -> app/components/raise/LineRow.vue',
    ])
  })
  test('an area that reads a table above its rank, named in SQL or taken from the schema', () => {
    const sources = withFiles({
      'server/people/odd-reads.ts': 'const q = sql`select 1 from person p join requisition_line l on true`\n',
      'server/budget/odd-store.ts': "import { orderLine } from '../db/schema/order'\n",
    })
    expect(rules.wrongRanks(sources)).toEqual(
      expect.arrayContaining([
        'server/people/odd-reads.ts reads requisition_line',
        'server/budget/odd-store.ts reads order_line',
      ]),
    )
  })
  test('a table or a column that a statement names by hand', () => {
    const sources = withFiles({
      'server/order/odd-reads.ts':
        "const q = sql`select ${p.id}, p.name, 'p.email' from ${p} join supplier s on left_on is null`\n",
    })
    expect(rules.namedByHand(sources)).toEqual([
      'server/order/odd-reads.ts: name',
      'server/order/odd-reads.ts: supplier',
      'server/order/odd-reads.ts: left_on',
    ])
  })
  test('an excuse that excuses nothing', () => {
    const without = new Map(house)
    without.set('server/http/health.ts', '')
    expect(rules.idleExcuses(without)).toEqual(['server/http/health.ts -> context'])
  })
  test('a real circle beside a type import, and a circle of types alone', () => {
    const sources = withFiles({
      'core/base/a.ts': "import { type B } from './b'\nimport { b } from './b'\nexport const a = b\n",
      'core/base/b.ts': "import { a } from './a'\nexport type B = typeof a\nexport const b = 1\n",
      'core/base/c.ts': "import type { D } from './d'\nexport type C = D\n",
      'core/base/d.ts': "import type { C } from './c'\nexport type D = C\n",
    })
    expect(rules.circles(sources).map((c) => c.split(' -> ').length)).toEqual(expect.arrayContaining([3, 3]))
  })
  test('a use case that takes a second connection', () => {
    const sources = withFiles({ 'server/order/odd.ts': "import { inTransaction } from '../db/transaction'\n" })
    expect(rules.secondConnections(sources)).toEqual(['server/order/odd.ts takes inTransaction'])
  })
  test('a statement in a use case, another clock, an impure core, a line over 120', () => {
    const sources = withFiles({
      'server/order/odd.ts': "import { sql } from 'drizzle-orm'\nconst now = Date.now()\n",
      'core/base/odd.ts': `const x = Math.random() // ${'x'.repeat(120)}\n`,
    })
    expect(rules.strayStatements(sources)).toEqual(['server/order/odd.ts'])
    expect(rules.otherClocks(sources)).toEqual(['server/order/odd.ts'])
    expect(rules.impureCore(sources)).toEqual(['core/base/odd.ts'])
    expect(rules.longLines(sources)).toEqual(['core/base/odd.ts:1'])
  })
  test('a component that writes into a prop, and into what a prop holds', async () => {
    const eslint = new ESLint()
    const component = [
      '<script setup lang="ts">',
      'const props = defineProps<{ line: { quantity: string } }>()',
      "const clear = () => {\n  props.line.quantity = ''\n}",
      '</script>',
      '<template><input v-model="line.quantity" @click="clear" /></template>',
      '',
    ].join('\n')
    const [result] = await eslint.lintText(component, { filePath: 'app/components/raise/Odd.vue' })
    expect(result?.messages.filter((m) => m.ruleId === 'vue/no-mutating-props')).toHaveLength(2)
  })
})
