<script setup lang="ts">
import type { Slip } from '#shared/contract/decide'
import { sayMarks } from '#shared/words/marks'
import { useWording } from '~/composables/base/use-wording'

/** What waits, as slips: who, how much, what for, since when and by when, and what makes one look twice. */
const props = defineProps<{ slips: readonly Slip[]; wanted: string | null }>()
/** Those that are decided together. */
const marked = defineModel<ReadonlySet<string>>('marked', { required: true })
const wording = useWording()
/** Of a long queue those near the one that is shown are drawn, as many as stand side by side and some more. */
const NEAR = { before: 12, after: 24 }
const from = computed(() => Math.max(0, props.slips.findIndex((s) => s.id === props.wanted) - NEAR.before))
const shown = computed(() => props.slips.slice(from.value, from.value + NEAR.before + NEAR.after))
const behind = computed(() => props.slips.length - from.value - shown.value.length)
function mark(id: string, on: boolean): void {
  const next = new Set(marked.value)
  if (on) next.add(id)
  else next.delete(id)
  marked.value = next
}
const risks = (s: Slip) =>
  sayMarks([...(s.overBudget ? (['over budget'] as const) : []), ...(s.newSupplier ? (['new supplier'] as const) : [])])
</script>

<template>
  <nav
    :class="[
      'flex overflow-x-auto rounded-t border border-b-0 border-strong bg-margin',
      'max-[900px]:rounded-none max-[900px]:border-x-0',
    ]"
    aria-label="What waits for you"
  >
    <p v-if="from > 0" class="small grid shrink-0 place-items-center border-r border-strong px-4">
      {{ wording.decimal(String(from)) }} before
    </p>
    <div
      v-for="s in shown"
      :id="`slip-${s.id}`"
      :key="s.id"
      class="relative min-w-[216px] max-w-[330px] shrink-0 border-r border-strong last:border-r-0"
      :class="s.id === wanted ? 'bg-sheet shadow-[inset_0_3px_0_var(--ink)]' : 'hover:bg-sheet'"
    >
      <NuxtLink
        :to="`/decide/${s.id}`"
        replace
        class="block px-3.5 pb-2 pt-2"
        :aria-current="s.id === wanted ? 'true' : undefined"
      >
        <span class="flex justify-between gap-4"
          ><b class="font-semibold">{{ s.owner }}</b
          ><span>{{ wording.kept(s.amount, s.currency) }}</span></span
        >
        <span class="small block truncate"
          >{{ s.title }}<template v-if="s.forName"> · for {{ s.forName }}</template></span
        >
        <span class="small block truncate pr-7"
          ><span v-if="risks(s)" class="font-medium text-ink">{{ risks(s) }} · </span
          ><template v-if="s.asked">you asked · </template>since {{ wording.since(s.since) }}, by
          {{ wording.shortDay(s.needBy) }}</span
        >
      </NuxtLink>
      <label
        class="absolute bottom-1.5 right-2 grid size-6 place-items-center"
        :title="`Decide with others: ${s.title}`"
      >
        <span class="sr-only">Decide with others: {{ s.owner }}, {{ s.title }}</span>
        <input
          type="checkbox"
          class="size-4 accent-[var(--green)]"
          :checked="marked.has(s.id)"
          @change="mark(s.id, ($event.target as HTMLInputElement).checked)"
        />
      </label>
    </div>
    <p v-if="behind > 0" class="small grid shrink-0 place-items-center px-4">
      {{ wording.decimal(String(behind)) }} more
    </p>
  </nav>
</template>
