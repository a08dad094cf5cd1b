<script setup lang="ts">
import { add, sum } from '#core/base/money'
import type { YearEndView } from '#shared/contract/year-end'
import { formatCount } from '#shared/words/format'
import { useWording } from '~/composables/base/use-wording'

/** How a year was ended: who carried and released what, line by line, with every entry as a file. */
defineProps<{ year: number; runs: YearEndView['runs'] }>()
const wording = useWording()
type Run = YearEndView['runs'][number]
function sayRun(run: Run): string {
  const parts = (['carry', 'release'] as const).flatMap((choice) => {
    const of = run.lines.filter((l) => l.choice === choice)
    const [first] = of
    if (first === undefined) return []
    const total = sum(
      of.map((l) => add(l.reserved, l.committed)),
      first.reserved.currency,
    )
    const done = choice === 'carry' ? `carried${run.withMoney ? ' with its money' : ''}` : 'released'
    return [`${wording.money(total)} of ${formatCount(of.length, 'line', 'lines')} ${done}`]
  })
  return parts.join(', ')
}
const file = (year: number, run: Run, as: string) => `/api/fiscal-years/${year}/end/${run.id}/file?as=${as}`
</script>

<template>
  <section aria-labelledby="runs" class="mt-8">
    <h2 id="runs" class="head mb-1">How it was ended</h2>
    <ul>
      <li v-for="r in runs" :key="r.id" class="border-b border-rule py-2">
        <p>
          {{ wording.moment(r.at) }}, {{ r.by }}: {{ sayRun(r) }}.
          <span class="small"
            >Every entry as <a class="quiet-link" :href="file(year, r, 'csv')">CSV</a> or
            <a class="quiet-link" :href="file(year, r, 'xlsx')">XLSX</a></span
          >
        </p>
        <details>
          <summary class="quiet-link small inline-block">line by line</summary>
          <table class="table mt-1">
            <caption class="sr-only">
              What became of each line
            </caption>
            <thead>
              <tr>
                <th scope="col">Budget line</th>
                <th scope="col" class="max-[900px]:hidden">Department</th>
                <th scope="col" class="num">Asked for</th>
                <th scope="col" class="num">Ordered</th>
                <th scope="col" class="pl-4!">What became of it</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="l in r.lines" :key="l.id">
                <td>{{ l.name }}</td>
                <td class="text-ink2 max-[900px]:hidden">{{ l.department }}</td>
                <td class="num">{{ wording.amount(l.reserved) }}</td>
                <td class="num">{{ wording.amount(l.committed) }}</td>
                <td class="pl-4!">{{ l.choice === 'carry' ? 'carried' : 'released' }}</td>
              </tr>
            </tbody>
          </table>
        </details>
      </li>
    </ul>
  </section>
</template>
