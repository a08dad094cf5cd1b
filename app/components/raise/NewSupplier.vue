<script setup lang="ts">
import type { SupplierFound } from '#shared/contract/catalogue'
import type { AlikeSupplier } from '#shared/contract/supplier'
import { sayAlike } from '#shared/words/supplier'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import { sayError, useApi } from '~/composables/base/use-api'

/** A supplier that is not there yet: what is asked for, and who may be meant that is there already. */
const props = defineProps<{ words: string; currency: string; policy: 'propose' | 'create' }>()
const emit = defineEmits<{ made: [supplier: SupplierFound]; close: [] }>()
const api = useApi()
const form = reactive({
  name: props.words,
  town: '',
  address: '',
  email: '',
  telephone: '',
  taxNumber: '',
  currency: props.currency,
  note: '',
})
const taxForm = shallowRef<File | null>(null)
const alike = shallowRef<AlikeSupplier[]>([])
const busy = ref(false)
const trouble = ref('')
let asked = 0
let timer: ReturnType<typeof setTimeout> | undefined
watch(
  () => [form.name, form.taxNumber, form.email],
  () => {
    clearTimeout(timer)
    timer = setTimeout(() => {
      void compare()
    }, 200)
  },
  { immediate: true },
)
async function compare(): Promise<void> {
  const mine = ++asked
  try {
    const reply = await api.get('/api/suppliers/alike', {
      query: {
        name: form.name,
        taxNumber: form.taxNumber,
        email: form.email,
      },
    })
    if (mine === asked) alike.value = reply.alike
  } catch {
    if (mine === asked) alike.value = []
  }
}
const ready = computed(() => form.name.trim().length >= 2 && form.town.trim() !== '')
let key = crypto.randomUUID()
async function make(): Promise<void> {
  if (busy.value || !ready.value) return
  busy.value = true
  trouble.value = ''
  try {
    const made = await api.post('/api/suppliers', { body: { ...form }, key })
    if (taxForm.value !== null)
      await api.post('/api/suppliers/{id}/tax-form', {
        params: { id: made.id },
        raw: taxForm.value,
        query: { name: taxForm.value.name.slice(0, 300) },
      })
    emit('made', made)
  } catch (e) {
    trouble.value = sayError(e)
    key = crypto.randomUUID()
  } finally {
    busy.value = false
  }
}
/** One that is there already was meant: it is read whole, so that its warning counts. */
async function chooseInstead(a: AlikeSupplier): Promise<void> {
  try {
    const { suppliers } = await api.get('/api/suppliers', { query: { words: a.name } })
    const found = suppliers.find((s) => s.id === a.id)
    if (found !== undefined) emit('made', found)
  } catch (e) {
    trouble.value = sayError(e)
  }
}
</script>

<template>
  <DialogSheet
    :title="policy === 'propose' ? 'A supplier that finance does not know yet' : 'A new supplier'"
    :width="640"
    @close="emit('close')"
    @main="make"
  >
    <p v-if="policy === 'propose'" class="mt-1 text-ink2">
      Finance looks at it; your request can be sent meanwhile, and is ordered once they agree.
    </p>
    <div class="mt-4 grid grid-cols-2 gap-x-4 gap-y-3 overflow-y-auto max-[700px]:grid-cols-1">
      <label
        ><span class="label">Name</span><input v-model="form.name" class="field" maxlength="120" autocomplete="off"
      /></label>
      <label
        ><span class="label">Town</span><input v-model="form.town" class="field" maxlength="80" autocomplete="off"
      /></label>
      <label class="col-span-2 max-[700px]:col-span-1"
        ><span class="label">Address</span
        ><input v-model="form.address" class="field" maxlength="300" autocomplete="off"
      /></label>
      <label
        ><span class="label">E-mail for orders</span
        ><input v-model="form.email" type="email" class="field" maxlength="200" autocomplete="off"
      /></label>
      <label
        ><span class="label">Telephone</span
        ><input v-model="form.telephone" class="field" maxlength="60" autocomplete="off"
      /></label>
      <label
        ><span class="label">Tax number</span
        ><input v-model="form.taxNumber" class="field" maxlength="40" autocomplete="off"
      /></label>
      <label
        ><span class="label">Tax form, PDF or picture</span
        ><input
          type="file"
          class="field"
          accept="application/pdf,image/png,image/jpeg"
          @change="taxForm = ($event.target as HTMLInputElement).files?.[0] ?? null"
      /></label>
      <label class="col-span-2 max-[700px]:col-span-1"
        ><span class="label">Why this one</span
        ><input
          v-model="form.note"
          class="field"
          maxlength="1000"
          placeholder="What they can do that others cannot"
          autocomplete="off"
      /></label>
    </div>
    <section v-if="alike.length > 0" class="notice-amber mt-3" aria-live="polite">
      <h3 class="head mb-1">{{ alike.length === 1 ? 'Is it this one?' : 'Is it one of these?' }}</h3>
      <p v-for="a in alike" :key="a.id">
        <button
          type="button"
          class="quiet-link font-semibold"
          :disabled="a.standing === 'on hold'"
          @click="chooseInstead(a)"
        >
          {{ a.name }}</button>, {{ a.number }}, {{ a.town }}: {{ sayAlike(a.why)
        }}<template v-if="a.standing !== 'active'"> · {{ a.standing }}</template>
      </p>
    </section>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <div class="mt-5 flex flex-wrap gap-2.5">
      <div class="min-w-[240px] flex-1">
        <MainAction :missing="!ready" :busy="busy" keys="Ctrl ⏎" @press="make">{{
          !ready
            ? 'Name and town first'
            : policy === 'propose'
              ? `Propose ${form.name.trim()} to finance`
              : `Enter ${form.name.trim()}`
        }}</MainAction>
      </div>
      <button type="button" class="action" @click="emit('close')">Leave it</button>
    </div>
  </DialogSheet>
</template>
