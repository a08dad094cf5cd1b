<script setup lang="ts">
import type { ItemFound } from '#shared/contract/catalogue'
import type { SourceGroup, SourceLine } from '#shared/contract/regulars'
import { unitName } from '#core/base/unit'
import { capital, formatCount, inWords } from '#shared/words/format'
import { LINE_SOURCES, type LineSource } from '#core/requisition/line-source'
import { SOURCE_NAMES } from '#shared/words/line-source'
import { SOURCE_WORDS } from '#shared/words/regulars'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { keepMarks, keysOf } from '~/composables/raise/marked-lines'
import { useWording } from '~/composables/base/use-wording'

const wording = useWording()

/** Lines from regulars, last purchases, earlier requests, orders or templates: one press takes one, or the lot. */
const props = defineProps<{ source: LineSource; departmentId: string | null; room: number }>()
const emit = defineEmits<{
  take: [lines: SourceLine[], items: ItemFound[], suppliers: Record<string, string>]
  close: []
}>()
const api = useApi()
const source = ref(props.source)
const words = ref('')
const trouble = ref('')
const state = ref<'looking' | 'done'>('looking')
const found = shallowRef<{ groups: SourceGroup[]; items: ItemFound[]; suppliers: Record<string, string> }>({
  groups: [],
  items: [],
  suppliers: {},
})
const marked = ref<Set<string>>(new Set())
let asked = 0
let timer: ReturnType<typeof setTimeout> | undefined
const keys = computed(() => keysOf(found.value.groups))
async function look(): Promise<void> {
  const mine = ++asked
  state.value = 'looking'
  try {
    const reply = await api.get('/api/line-sources/{source}', {
      params: { source: source.value },
      query: {
        departmentId: props.departmentId ?? undefined,
        words: words.value,
      },
    })
    if (mine !== asked) return
    found.value = reply
    marked.value = keepMarks(marked.value, keys.value)
    trouble.value = ''
  } catch (e) {
    trouble.value = sayError(e)
  }
  state.value = 'done'
}
watch(source, () => {
  marked.value = new Set()
  void look()
})
watch(words, () => {
  clearTimeout(timer)
  timer = setTimeout(() => {
    void look()
  }, 200)
})
onMounted(look)
function mark(key: string): void {
  const next = new Set(marked.value)
  if (next.has(key)) next.delete(key)
  else next.add(key)
  marked.value = next
}
const chosen = computed(() =>
  found.value.groups.flatMap((g, n) => g.lines.filter((_, i) => marked.value.has(keys.value[n]?.[i] ?? ''))),
)
function take(lines: SourceLine[]): void {
  if (lines.length === 0) return
  if (lines.length > props.room) {
    trouble.value = `A requisition holds at most 500 lines; there is room for ${props.room} more.`
    return
  }
  emit('take', lines, found.value.items, found.value.suppliers)
}
</script>

<template>
  <DialogSheet :title="SOURCE_WORDS[source].title" :width="760" @close="emit('close')" @main="take(chosen)">
    <div class="mt-3 flex flex-wrap items-baseline gap-x-4 gap-y-2">
      <nav class="flex flex-wrap gap-x-4" aria-label="Where lines come from">
        <button
          v-for="s in LINE_SOURCES"
          :key="s"
          type="button"
          class="min-h-[28px]"
          :class="s === source ? 'font-semibold' : 'text-ink2 hover:text-ink'"
          :aria-pressed="s === source"
          @click="source = s"
        >
          {{ SOURCE_NAMES[s] }}
        </button>
      </nav>
      <input
        v-model="words"
        type="search"
        class="field ml-auto w-[210px]! min-h-[34px]! py-1.5! max-[700px]:ml-0 max-[700px]:w-full!"
        aria-label="Look among them"
        placeholder="Words or a part number"
      />
    </div>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <div class="mt-3 min-h-[180px] flex-1 overflow-auto" tabindex="0" role="region" aria-label="Lines to take">
      <p v-if="found.groups.length === 0" class="text-ink2">
        {{
          state === 'looking' ? 'Looking …' : words === '' ? SOURCE_WORDS[source].empty : 'Nothing fits these words.'
        }}
      </p>
      <section v-for="(g, n) in found.groups" :key="g.id" class="mb-4">
        <header v-if="g.name !== ''" class="flex items-baseline gap-3 border-b border-ink pb-1">
          <h3 class="head min-w-0 truncate">{{ g.name }}</h3>
          <span class="small shrink-0">{{ g.note }}</span><button
            type="button"
            class="quiet-link ml-auto shrink-0"
            @click="take(g.lines)"
          >
            take {{ g.lines.length === 1 ? 'it' : g.lines.length === 2 ? 'both' : `all ${inWords(g.lines.length)}` }}
          </button>
        </header>
        <label
          v-for="(l, i) in g.lines"
          :key="keys[n]?.[i] ?? i"
          class="flex min-h-[38px] cursor-pointer items-center gap-3 border-b border-rule py-1 hover:bg-green-ground"
        >
          <input
            type="checkbox"
            class="size-4 shrink-0 accent-[var(--green)]"
            :checked="marked.has(keys[n]?.[i] ?? '')"
            @change="mark(keys[n]?.[i] ?? '')"
          />
          <span class="min-w-0 flex-1"
            ><span class="block truncate font-medium">{{ l.description }}</span
            ><span v-if="l.note || l.supplierId" class="small block truncate">{{
              [
                found.suppliers[l.supplierId ?? ''] ?? '',
                l.supplierPart ?? '',
                l.note === found.suppliers[l.supplierId ?? ''] ? '' : l.note,
              ]
                .filter((t) => t !== '')
                .join(' · ')
            }}</span></span
          >
          <span class="num text-ink2">{{ wording.decimal(l.quantity) }} {{ unitName(l.unit) }}</span
          ><span class="num w-[88px]">{{ l.unitPrice === null ? '–' : wording.price(l.unitPrice, l.currency) }}</span>
        </label>
      </section>
    </div>
    <div class="mt-4 flex flex-wrap gap-2.5">
      <div class="min-w-[240px] flex-1">
        <MainAction :missing="chosen.length === 0" keys="Ctrl ⏎" @press="take(chosen)">{{
          chosen.length === 0 ? 'Mark what you need' : `Take ${formatCount(chosen.length, 'line', 'lines')}`
        }}</MainAction>
      </div>
      <button type="button" class="action" @click="emit('close')">{{ capital('leave it') }}</button>
    </div>
  </DialogSheet>
</template>
