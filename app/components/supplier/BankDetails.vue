<script setup lang="ts">
import { checkBank, sayBankNumber, type BankDetails } from '#core/supplier/bank'
import type { SupplierView } from '#shared/contract/supplier'
import { listWords } from '#shared/words/format'
import { sayBankTrouble } from '#shared/words/supplier'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { isMainKey } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'

/** Where a supplier is paid to, and the change of it that waits for a second person. */
const props = defineProps<{ supplier: SupplierView }>()
const emit = defineEmits<{ changed: [] }>()
const api = useApi()
const wording = useWording()
const writing = ref(false)
const details = reactive<{ holder: string; number: string; bank: string }>({ holder: '', number: '', bank: '' })
const touched = ref(false)
const { busy, trouble, act } = useAct()
const told = ref('')
const wrong = computed(() => checkBank(details))
const at = { params: { id: props.supplier.id } }
const say = (d: BankDetails) => [sayBankNumber(d.number), d.bank, d.holder].filter((t) => t !== '').join(', ')

async function begin(): Promise<void> {
  Object.assign(details, { holder: props.supplier.bank?.holder ?? props.supplier.name, number: '', bank: '' })
  touched.value = false
  told.value = ''
  writing.value = true
  await nextTick()
  document.getElementById('bank-number')?.focus()
}
/** Does something and tells what came of it. */
async function change(work: () => Promise<string>): Promise<void> {
  told.value = ''
  const done = await act(async () => {
    told.value = await work()
  })
  if (done) emit('changed')
}
function ask(): void {
  touched.value = true
  if (wrong.value.length > 0) return
  void change(async () => {
    const { toldTo } = await api.put('/api/suppliers/{id}/bank', { ...at, body: { ...details } })
    writing.value = false
    return toldTo.length === 0
      ? 'It waits for somebody else of finance. No address of the supplier is known: ring them.'
      : `It waits for somebody else of finance. ${listWords(toldTo)} ${toldTo.length === 1 ? 'is' : 'are'} told.`
  })
}
const confirm = (number: string) =>
  change(async () => {
    await api.post('/api/suppliers/{id}/bank/confirmations', { ...at, body: { number }, key: crypto.randomUUID() })
    return 'It is paid there from now on.'
  })
const end = () =>
  change(async () => {
    await api.remove('/api/suppliers/{id}/bank', at)
    return 'The change is ended; it is paid as before.'
  })
function onKey(event: KeyboardEvent): void {
  if (!isMainKey(event)) return
  event.preventDefault()
  event.stopPropagation()
  ask()
}
</script>

<template>
  <section aria-labelledby="bank-head">
    <h2 id="bank-head" class="head mb-1 mt-6">Where it is paid to</h2>
    <p v-if="supplier.bank" class="tabular-nums">{{ say(supplier.bank) }}</p>
    <p v-else class="text-ink2">No account is confirmed yet.</p>
    <div v-if="supplier.bankChange" class="notice-amber mt-2 max-w-[640px]">
      <p>
        {{ supplier.bankChange.by }} asked, {{ wording.since(supplier.bankChange.at) }}, to pay to
        <b class="tabular-nums">{{ say(supplier.bankChange.details) }}</b>.
        {{
          supplier.bankChange.toldTo.length === 0
            ? 'No address of the supplier is known: nobody there was told.'
            : `Told: ${listWords(supplier.bankChange.toldTo)}.`
        }}
      </p>
      <p v-if="!supplier.bankChange.mayConfirm" class="mt-1">
        {{ supplier.bankChange.isOwn ? 'Somebody else of finance confirms it.' : 'Finance confirms it.' }}
      </p>
      <p class="mt-2 flex flex-wrap gap-2.5">
        <button
          v-if="supplier.bankChange.mayConfirm"
          type="button"
          class="action"
          :aria-busy="busy"
          @click="confirm(supplier.bankChange.details.number)"
        >
          Confirm: I rang them at a number we knew
        </button>
        <button
          v-if="supplier.bankChange.mayConfirm || supplier.bankChange.isOwn"
          type="button"
          class="action"
          @click="end"
        >
          {{ supplier.bankChange.isOwn ? 'Take it back' : 'Refuse it' }}
        </button>
      </p>
    </div>
    <form
      v-if="writing"
      class="mt-2 grid max-w-[640px] grid-cols-2 gap-3 max-[700px]:grid-cols-1"
      @submit.prevent="ask"
      @keydown="onKey"
    >
      <div>
        <label class="label" for="bank-number">IBAN, or account number</label>
        <input
          id="bank-number"
          v-model="details.number"
          class="field"
          maxlength="60"
          autocomplete="off"
          @blur="touched = details.number !== ''"
        />
      </div>
      <div>
        <label class="label" for="bank-code">BIC or bank code</label>
        <input id="bank-code" v-model="details.bank" class="field" maxlength="30" autocomplete="off" />
      </div>
      <div>
        <label class="label" for="bank-holder">Whose account it is</label>
        <input id="bank-holder" v-model="details.holder" class="field" maxlength="120" autocomplete="off" />
      </div>
      <p class="small self-end">It holds once somebody else of finance confirms it; the supplier is told at once.</p>
      <p v-if="touched && wrong.length > 0" class="text-amber-ink col-span-full" role="status">
        {{ wrong.map(sayBankTrouble).join(' ') }}
      </p>
      <p class="col-span-full flex gap-2.5">
        <button type="submit" class="action" :aria-busy="busy">Ask finance to pay there</button>
        <button type="button" class="action" @click="writing = false">Leave it</button>
      </p>
    </form>
    <button v-else type="button" class="quiet-link mt-1 min-h-6" @click="begin">
      {{ supplier.bank || supplier.bankChange ? 'Other bank details' : 'Enter bank details' }}
    </button>
    <p v-if="told" class="mt-2" role="status">{{ told }}</p>
    <p v-if="trouble" class="notice-red mt-2 max-w-[640px]" role="alert">{{ trouble }}</p>
  </section>
</template>
