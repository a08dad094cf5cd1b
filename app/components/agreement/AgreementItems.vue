<script setup lang="ts">
import type { CatalogueItem } from '#shared/contract/catalogue'
import { priceFor } from '#core/catalogue/price'
import { fullPrice, type TypedItem } from '~/composables/agreement/typed-item'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** What stands in an agreement that fixes items, with what is agreed for one of each. */
const props = defineProps<{
  supplier: { readonly id: string; readonly name: string } | null
  currency: string
  isRight: (item: TypedItem) => boolean
}>()
const items = defineModel<TypedItem[]>({ required: true })
const api = useApi()
const wording = useWording()
const typed = ref('')
const found = shallowRef<readonly CatalogueItem[]>([])
let asked = 0
async function look(): Promise<void> {
  const mine = ++asked
  const words = typed.value.trim()
  if (words.length < 2 || props.supplier === null) {
    found.value = []
    return
  }
  try {
    const page = await api.get('/api/catalogue', { query: { words, supplier: props.supplier.id, limit: 8 } })
    if (mine === asked) found.value = page.items.filter((i) => !items.value.some((k) => k.itemId === i.id))
  } catch {
    if (mine === asked) found.value = []
  }
}
async function add(item: CatalogueItem): Promise<void> {
  const catalogue = priceFor(item.prices, '1', wording.today.value)?.unitPrice ?? null
  const price = catalogue === null ? '' : wording.typed(fullPrice(catalogue, props.currency))
  items.value = [
    ...items.value,
    { itemId: item.id, name: item.name, supplierPart: item.supplierPart, catalogue, price },
  ]
  typed.value = ''
  found.value = []
  asked += 1
  await nextTick()
  const field = document.getElementById(`agreement-price-${item.id}`)
  field?.focus()
  if (field instanceof HTMLInputElement) field.select()
}
function addFirst(): void {
  const [first] = found.value
  if (first !== undefined) void add(first)
}
</script>

<template>
  <section aria-labelledby="agreement-items">
    <h3 id="agreement-items" class="head mb-1">What stands in it</h3>
    <div v-if="items.length > 0" class="grid grid-cols-[minmax(0,1fr)_130px_auto] items-center gap-x-3 gap-y-1.5">
      <span class="small">Item</span><span class="small text-right">Agreed for one, in {{ currency }}</span
      ><span></span>
      <template v-for="i in items" :key="i.itemId">
        <span class="min-w-0"
          >{{ i.name
          }}<span class="small block"
            >{{ i.supplierPart
            }}<template v-if="i.catalogue !== null">
              · {{ wording.price(i.catalogue, currency) }} in the catalogue today</template
            ></span
          ></span
        >
        <input
          :id="`agreement-price-${i.itemId}`"
          v-model="i.price"
          class="field py-1.5! text-right tabular-nums"
          inputmode="decimal"
          autocomplete="off"
          placeholder="as it is sold"
          :aria-invalid="!isRight(i)"
          :aria-label="`Agreed for one ${i.name}`"
        />
        <button
          type="button"
          class="quiet-link small min-h-6"
          :aria-label="`Take ${i.name} out of it`"
          @click="items = items.filter((k) => k.itemId !== i.itemId)"
        >
          take out
        </button>
      </template>
    </div>
    <p v-if="supplier === null" class="small mt-1">Say first with which supplier it is.</p>
    <template v-else>
      <input
        id="agreement-item"
        v-model="typed"
        class="field mt-2"
        autocomplete="off"
        :aria-label="`Add something that ${supplier.name} sells`"
        :placeholder="`Add something that ${supplier.name} sells: words or a part number`"
        @input="look"
        @keydown.enter.exact.prevent="addFirst"
      />
      <ul v-if="found.length > 0" class="border-x border-b border-rule" aria-label="From the catalogue">
        <li v-for="f in found" :key="f.id">
          <button type="button" class="option w-full text-left" @click="add(f)">
            {{ f.name }}<span class="small block">{{ f.supplierPart }}</span>
          </button>
        </li>
      </ul>
      <p v-if="typed.trim().length >= 2 && found.length === 0" class="small mt-1">
        {{ supplier.name }} sells nothing here that is called so, or it stands in it already.
      </p>
    </template>
  </section>
</template>
