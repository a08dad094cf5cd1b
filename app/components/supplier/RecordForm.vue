<script setup lang="ts">
import { CONTACT_USES } from '#core/supplier/record'
import type { SupplierView } from '#shared/contract/supplier'
import { inWords } from '#shared/words/format'
import BlankDay from '~/components/base/BlankDay.vue'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** Who is spoken to at a supplier, and of what people are warned on which days. */
const props = defineProps<{ supplier: SupplierView }>()
const emit = defineEmits<{ kept: []; close: [] }>()
const api = useApi()
const wording = useWording()
const before = props.supplier
const contacts = ref(before.contacts.map((c) => ({ ...c })))
const warning = reactive({
  text: before.datedWarning ?? before.warning ?? '',
  mode: before.warningMode,
  from: before.warningFrom,
  until: before.warningUntil,
})
const hasDays = ref(warning.from !== null || warning.until !== null)
const { busy, trouble, act } = useAct()
const MODES = { informs: 'is shown', 'must be read': 'must be read before sending', stops: 'stops every request' }
const nameless = computed(() => contacts.value.filter((c) => c.name.trim() === '').length)
const action = computed(() =>
  nameless.value > 0 ? `${inWords(nameless.value)} without a name` : 'Keep it as it stands here',
)

async function add(): Promise<void> {
  contacts.value.push({ name: '', about: 'orders', email: '', telephone: '', address: '' })
  await nextTick()
  document.getElementById(`contact-${contacts.value.length - 1}`)?.focus()
}
async function keep(): Promise<void> {
  const empty = contacts.value.findIndex((c) => c.name.trim() === '')
  if (empty >= 0) document.getElementById(`contact-${empty}`)?.focus()
  if (empty >= 0) return
  const body = {
    contacts: contacts.value,
    warning: hasDays.value ? warning : { ...warning, from: null, until: null },
  }
  const at = { params: { id: before.id }, version: before.version }
  if (await act(() => api.put('/api/suppliers/{id}/record', { ...at, body }))) emit('kept')
}
</script>

<template>
  <DialogSheet :title="`Contacts and warning of ${supplier.name}`" :width="760" @close="emit('close')" @main="keep">
    <div class="-mx-1 mt-3 min-h-0 overflow-auto px-1 pb-1">
      <h3 class="head">Contacts</h3>
      <p v-if="contacts.length === 0" class="mt-1 text-ink2">Nobody is known there yet.</p>
      <fieldset
        v-for="(c, i) in contacts"
        :key="i"
        :class="[
          'mt-2 grid grid-cols-[1.2fr_120px_1.4fr_1fr_auto] items-end gap-2',
          'border-t border-rule pt-2 max-[700px]:grid-cols-2',
        ]"
      >
        <legend class="sr-only">Contact {{ i + 1 }}</legend>
        <div>
          <label class="label" :for="`contact-${i}`">Name</label>
          <input :id="`contact-${i}`" v-model="c.name" class="field" maxlength="120" autocomplete="off" />
        </div>
        <div>
          <label class="label" :for="`contact-about-${i}`">About</label>
          <select :id="`contact-about-${i}`" v-model="c.about" class="field">
            <option v-for="a in CONTACT_USES" :key="a" :value="a">{{ a }}</option>
          </select>
        </div>
        <div>
          <label class="label" :for="`contact-mail-${i}`">E-mail</label>
          <input :id="`contact-mail-${i}`" v-model="c.email" class="field" maxlength="200" autocomplete="off" />
        </div>
        <div>
          <label class="label" :for="`contact-tel-${i}`">Telephone</label>
          <input :id="`contact-tel-${i}`" v-model="c.telephone" class="field" maxlength="60" autocomplete="off" />
        </div>
        <button
          type="button"
          class="action"
          :aria-label="`Take ${c.name || 'this contact'} off`"
          @click="contacts.splice(i, 1)"
        >
          Take off
        </button>
        <div class="col-span-4 max-[700px]:col-span-2">
          <label class="label" :for="`contact-address-${i}`">Address, where it is another</label>
          <input :id="`contact-address-${i}`" v-model="c.address" class="field" maxlength="300" autocomplete="off" />
        </div>
      </fieldset>
      <button type="button" class="quiet-link mt-2 min-h-6" @click="add">Add a contact</button>

      <h3 class="head mt-5">Warning</h3>
      <label class="label mt-1" for="warning-text">What whoever asks for something of it should know</label>
      <textarea id="warning-text" v-model="warning.text" class="field" rows="2" maxlength="500" />
      <div v-if="warning.text.trim() !== ''" class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
        <label class="flex items-center gap-2"
          >It
          <select v-model="warning.mode" class="field w-auto! py-1.5!">
            <option v-for="(says, m) in MODES" :key="m" :value="m">{{ says }}</option>
          </select></label
        >
        <label class="flex min-h-6 items-center gap-1.5"
          ><input v-model="hasDays" type="checkbox" class="size-4 accent-[var(--green)]" />on some days only</label
        >
        <span v-if="hasDays"
          >from
          <BlankDay
            v-model="warning.from"
            label="First day of the warning"
            placeholder="now"
            :today="wording.today.value"
            optional
            compact
          />
          until
          <BlankDay
            v-model="warning.until"
            label="Last day of the warning"
            placeholder="further notice"
            :today="wording.today.value"
            optional
            compact
          />
        </span>
      </div>
    </div>
    <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
    <div class="mt-4 flex flex-wrap gap-2.5">
      <div class="min-w-[280px] flex-1">
        <MainAction :missing="nameless > 0" :busy="busy" keys="Ctrl ⏎" @press="keep">{{ action }}</MainAction>
      </div>
      <button type="button" class="action" @click="emit('close')">Leave it</button>
    </div>
  </DialogSheet>
</template>
