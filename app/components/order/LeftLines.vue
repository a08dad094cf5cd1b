<script setup lang="ts">
import { formatCount } from '#shared/words/format'
import { useWording } from '~/composables/base/use-wording'

interface Left {
  readonly reason: string
  /** How many lines, where not all of them are told. */
  readonly count?: number
  readonly lines: readonly {
    readonly lineId: string
    readonly requisitionId: string
    readonly number: string
    readonly description: string
    readonly quantity: string
    readonly unit: string
    readonly supplier: string | null
    /** It still waits; it does where that is not said. */
    readonly isOpen?: boolean
  }[]
}
/** Lines that are left where they lie, by why; of what one may not see, its number. */
defineProps<{ left: readonly Left[] }>()
const wording = useWording()
const MOST = 20
const more = (l: Left) => (l.count ?? l.lines.length) - Math.min(MOST, l.lines.length)
</script>

<template>
  <div v-for="l in left" :key="l.reason" class="mt-2 border-t border-rule pt-2">
    <p>{{ l.reason }}</p>
    <ul class="mt-1">
      <li
        v-for="x in l.lines.slice(0, MOST)"
        :key="x.lineId"
        class="flex min-h-6 flex-wrap items-center gap-x-3 text-ink2"
      >
        <NuxtLink class="quiet-link inline-flex min-h-6 items-center" :to="`/trail/${x.requisitionId}`">{{
          x.number
        }}</NuxtLink>
        <span>{{ x.description }}, {{ wording.quantity(x.quantity, x.unit) }}</span
        ><span v-if="x.supplier">{{ x.supplier }}</span
        ><span v-if="x.isOpen === false" class="text-ink3">no longer waits</span>
      </li>
    </ul>
    <p v-if="more(l) > 0" class="small">
      {{ l.lines.length === 0 ? '' : 'and ' }}{{ formatCount(more(l), 'line', 'lines')
      }}{{ l.lines.length === 0 ? ' that you may not see' : ' more' }}
    </p>
  </div>
</template>
