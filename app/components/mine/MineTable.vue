<script setup lang="ts">
import { mayRemindAgain } from '#core/requisition/remind'
import { sayNext, type Next } from '#shared/words/mine'
import type { MineRow } from '#shared/contract/mine'
import StationRow from '~/components/base/StationRow.vue'
import { stationsOfRow } from '~/components/base/small-stations'
import { useWording } from '~/composables/base/use-wording'

/** Requests that a person owns: how far each has come, whom it waits for, and what comes next. */
const props = defineProps<{
  rows: readonly MineRow[]
  /** The base currency, in which their amounts are. */
  currency: string
  /** When they were read. */
  now: string
}>()
const emit = defineEmits<{ remind: [row: MineRow] }>()

const wording = useWording()
const shown = computed(() =>
  props.rows.map((r) => {
    const next = sayNext(r)
    const mayRemind = r.question === null && mayRemindAgain({ ...r, now: props.now })
    return { ...r, next: { ...next, to: toNext(r.id, next.action) }, stations: stationsOfRow(r), mayRemind }
  }),
)
/** Where the next action of a row leads. */
function toNext(id: string, action: Next['action']): string {
  switch (action) {
    case 'Answer':
      return `/trail/${id}#answer`
    case 'Copy':
      return `/raise?from=${id}`
    case 'See':
      return `/trail/${id}`
    default:
      return `/raise/${id}`
  }
}

const chosen = ref(0)
watch(
  () => props.rows.length,
  (n) => {
    chosen.value = Math.min(chosen.value, Math.max(0, n - 1))
  },
)
/** Goes on to the next row, or back to the one before. */
function move(by: 1 | -1): void {
  chosen.value = Math.max(0, Math.min(props.rows.length - 1, chosen.value + by))
  void nextTick(() =>
    document
      .getElementById(`row-${props.rows[chosen.value]?.id ?? ''}`)
      ?.querySelector('a')
      ?.focus(),
  )
}
defineExpose({ move })
</script>

<template>
  <table class="table">
    <caption class="sr-only">
      Requests that you own
    </caption>
    <thead class="max-[900px]:sr-only">
      <tr>
        <th scope="col">What it is for</th>
        <th scope="col">Number</th>
        <th scope="col" class="num">Amount, {{ currency }}</th>
        <th scope="col">Where it is</th>
        <th scope="col">Waits for</th>
        <th scope="col">Since</th>
        <th scope="col" class="num">Next</th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="(r, i) in shown"
        :id="`row-${r.id}`"
        :key="r.id"
        :data-chosen="i === chosen"
        :class="[
          'max-[900px]:grid max-[900px]:grid-cols-[minmax(0,1fr)_auto] max-[900px]:gap-x-3',
          'max-[900px]:border-b max-[900px]:border-rule max-[900px]:py-2 max-[900px]:[&>td]:border-0',
          'max-[900px]:[&>td]:p-0.5 max-[900px]:[&>td]:bg-transparent! max-[900px]:[&>td]:shadow-none!',
        ]"
        @focusin="chosen = i"
      >
        <td class="max-w-[380px]">
          <NuxtLink
            class="block truncate font-semibold hover:underline"
            :to="r.state === 'draft' ? `/raise/${r.id}` : `/trail/${r.id}`"
            >{{ r.title || 'Nothing yet' }}</NuxtLink
          >
        </td>
        <td class="text-ink2 max-[900px]:order-3">{{ r.number ?? 'draft' }}</td>
        <td class="num">{{ r.amount === null ? '–' : wording.kept(r.amount, currency) }}</td>
        <td class="max-[900px]:order-4"><StationRow :stations="r.stations" /></td>
        <td class="max-[900px]:order-5">
          <template v-if="r.next.you"
            ><b class="font-semibold text-amber-ink">You</b
            ><span class="text-amber-ink">: {{ r.next.words }}</span></template
          ><template v-else>{{ r.next.words }}</template>
        </td>
        <td class="text-ink2 max-[900px]:hidden">
          <time :datetime="r.since" :title="wording.exact(r.since)">since {{ wording.since(r.since) }}</time>
        </td>
        <td class="num max-[900px]:order-6">
          <button
            v-if="r.mayRemind"
            type="button"
            class="quiet-link mr-3"
            :aria-label="`Remind: ${r.title}`"
            @click="emit('remind', r)"
          >
            Remind</button
          ><NuxtLink class="quiet-link" :to="r.next.to" :aria-label="`${r.next.action}: ${r.title}`">{{
            r.next.action
          }}</NuxtLink>
        </td>
      </tr>
    </tbody>
  </table>
</template>
