<script setup lang="ts">
import type { RequestDecision } from '#shared/contract/decide'
import AttachmentView from '~/components/base/AttachmentView.vue'
import DialogSheet from '~/components/base/DialogSheet.vue'
import { useWording } from '~/composables/base/use-wording'

/** The quotes of a request, one after the other, beside its lines. */
const props = defineProps<{ doc: RequestDecision; quotes: RequestDecision['attachments'] }>()
const emit = defineEmits<{ close: [] }>()
const wording = useWording()
const at = ref(0)
const quote = computed(() => props.quotes[at.value])
</script>

<template>
  <DialogSheet title="Quotes beside the lines" :width="1240" @close="emit('close')">
    <div class="mt-4 grid gap-6 overflow-y-auto min-[900px]:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
      <div class="min-w-0">
        <table class="table">
          <caption class="sr-only">
            What is asked for
          </caption>
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col" class="num">How many</th>
              <th scope="col" class="num">Price</th>
              <th scope="col" class="num">Amount</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="l in doc.lines" :key="l.id">
              <td>
                <span class="block font-medium">{{ l.description }}</span><span class="small block">{{
                  [l.supplier, l.supplierPart].filter((t) => t).join(', ')
                }}</span>
              </td>
              <td class="num">{{ wording.quantity(l.quantity, l.unit) }}</td>
              <td class="num">
                {{ wording.price(l.unitPrice ?? '0', l.currency)
                }}<span v-if="l.priceBase !== '1'" class="small block">per {{ l.priceBase }}</span>
              </td>
              <td class="num">{{ l.net === null ? '–' : wording.amount(l.net) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-for="t in doc.tax" :key="t.currency" class="mt-2 text-right">
          {{ wording.money(t.net) }} without tax, {{ wording.money(t.total) }} with it
        </p>
      </div>
      <div class="min-w-0">
        <div class="mb-3 flex flex-wrap items-baseline gap-2">
          <button
            v-for="(q, i) in quotes"
            :key="q.id"
            type="button"
            class="max-w-[240px] truncate rounded border px-2.5 py-1"
            :class="i === at ? 'border-ink font-semibold' : 'border-edge hover:border-ink'"
            :aria-pressed="i === at"
            @click="at = i"
          >
            {{ q.name }}
          </button>
        </div>
        <AttachmentView
          v-if="quote"
          :key="quote.id"
          :attachment="quote"
          :address="`/api/requisitions/${doc.id}/attachments/${quote.id}`"
        />
      </div>
    </div>
  </DialogSheet>
</template>
