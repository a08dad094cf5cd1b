<script setup lang="ts">
import { addDays } from '#core/base/day'
import { REMIND_DAYS } from '#core/supplier/record'
import type { SupplierView } from '#shared/contract/supplier'
import BlankDay from '~/components/base/BlankDay.vue'
import { uploadFile } from '~/composables/base/upload-file'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** Papers about a supplier: insurances and certificates, until they end. */
const props = defineProps<{ supplier: SupplierView }>()
const emit = defineEmits<{ changed: [] }>()
const api = useApi()
const wording = useWording()
const validUntil = ref<string | null>(null)
const { busy, trouble, act } = useAct()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
const soon = computed(() => addDays(wording.today.value, REMIND_DAYS))
type Paper = SupplierView['papers'][number]
const ended = (p: Paper) => p.validUntil !== null && p.validUntil < wording.today.value
const ends = (p: Paper) => p.validUntil !== null && p.validUntil <= soon.value

async function change(work: () => Promise<unknown>): Promise<void> {
  if (await act(work)) emit('changed')
}
function chosen(event: Event): void {
  const box = event.target as HTMLInputElement
  const file = box.files?.[0]
  box.value = ''
  if (file === undefined) return
  void change(async () => {
    const query = { name: file.name, ...(validUntil.value === null ? {} : { validUntil: validUntil.value }) }
    await uploadFile('/api/suppliers/{id}/papers', { params: { id: props.supplier.id }, query }, file, () => undefined)
    validUntil.value = null
  })
}
const remove = (p: Paper) =>
  change(() => api.remove('/api/suppliers/{id}/papers/{paperId}', { params: { id: props.supplier.id, paperId: p.id } }))
</script>

<template>
  <section aria-labelledby="papers-head">
    <h2 id="papers-head" class="head mb-1 mt-6">Papers</h2>
    <ul v-if="supplier.papers.length > 0" class="max-w-[640px]">
      <li
        v-for="p in supplier.papers"
        :key="p.id"
        class="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-rule py-1.5"
      >
        <span>
          <a class="quiet-link font-semibold" :href="`/api/suppliers/${supplier.id}/papers/${p.id}`">{{ p.name }}</a>
          <span class="small block">{{ p.by }}, {{ wording.since(p.at) }}</span>
        </span>
        <span class="flex items-baseline gap-4">
          <span v-if="p.validUntil" :class="ends(p) ? 'text-amber-ink' : 'text-ink2'"
            >{{ ended(p) ? 'ended' : 'until' }} {{ wording.day(p.validUntil) }}</span
          >
          <button type="button" class="quiet-link min-h-6" :aria-label="`Take ${p.name} away`" @click="remove(p)">
            take away
          </button>
        </span>
      </li>
    </ul>
    <p class="mt-1.5" :class="supplier.papers.length === 0 ? 'text-ink2' : ''">
      {{ supplier.papers.length === 0 ? 'No insurance, certificate or tax form is kept.' : '' }}
      <button type="button" class="quiet-link min-h-6" :aria-busy="busy" @click="chooser?.click()">
        {{ busy ? 'keeping it …' : 'Keep a paper' }}
      </button>
      that is in force until
      <BlankDay
        v-model="validUntil"
        label="Last day of the paper"
        placeholder="further notice"
        :today="wording.today.value"
        optional
        compact
      />; buyers and finance are told a month before.
      <input
        ref="chooser"
        type="file"
        class="sr-only"
        tabindex="-1"
        accept=".pdf,.png,.jpg,.jpeg"
        aria-label="A paper about the supplier"
        @change="chosen"
      />
    </p>
    <p v-if="trouble" class="notice-red mt-2 max-w-[640px]" role="alert">{{ trouble }}</p>
  </section>
</template>
