<script setup lang="ts">
import type { ListDefinition } from '#core/lists/list'
import { lackingColumns } from '#core/lists/read-rows'
import { listWords } from '#shared/words/format'
import { LIST_WORDS } from '#shared/words/lists'

/** What each column of a file holds, as it was recognised, to be changed by hand. */
const props = defineProps<{
  list: ListDefinition
  head: readonly string[]
  /** Some of its rows, to see what a column holds. */
  cells: readonly (readonly string[])[]
}>()
const columns = defineModel<(string | null)[]>({ required: true })
const words = LIST_WORDS[props.list.name]
function hold(at: number, key: string): void {
  columns.value = columns.value.map((c, i) => (i === at ? (key === '' ? null : key) : c === key ? null : c))
}
const lacking = computed(() => lackingColumns(props.list, columns.value))
const sample = (i: number) => props.cells.map((r) => r[i] ?? '').find((c) => c.trim() !== '') ?? ''
</script>

<template>
  <div>
    <fieldset class="mt-4 flex flex-wrap items-end gap-x-3 gap-y-2">
      <legend class="head mb-1.5">What the columns hold</legend>
      <label v-for="(c, i) in columns" :key="i" class="min-w-0">
        <span class="small block max-w-[150px] truncate" :title="sample(i)">{{ head[i] || sample(i) || 'empty' }}</span>
        <select
          class="field w-auto! max-w-[170px]! min-h-[34px]! py-1!"
          :aria-label="`Column ${i + 1} holds`"
          :value="c ?? ''"
          @change="hold(i, ($event.target as HTMLSelectElement).value)"
        >
          <option value="">nothing of this list</option>
          <option v-for="k in list.columns" :key="k.key" :value="k.key">{{ k.name }}</option>
        </select>
      </label>
    </fieldset>
    <p v-if="lacking.length > 0" class="small mt-2 text-amber-ink!">
      No column holds {{ listWords(lacking.map((c) => `“${c.name}”`)) }}; new {{ words.many }} need that.
    </p>
  </div>
</template>
