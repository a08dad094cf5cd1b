<script setup lang="ts">
import { LONGEST_TALK, LONGEST_TALKER, TALK_WAYS, type TalkWay } from '#core/order/talk'
import type { OrderView } from '#shared/contract/order'
import { capital } from '#shared/words/format'
import { TALK_WORDS } from '#shared/words/talk'
import BlankChoice from '~/components/base/BlankChoice.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { isMainKey } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'

/** What was said with a supplier about an order, besides papers and answers; whoever buys notes more. */
const props = defineProps<{ order: OrderView; mayNote: boolean }>()
const emit = defineEmits<{ noted: [] }>()
const api = useApi()
const wording = useWording()
const { busy, trouble, act } = useAct()
const writing = ref(false)
const way = ref<TalkWay>('telephone')
const talker = ref('')
const text = ref('')
const missing = computed(() =>
  talker.value.trim() === '' ? 'talk-with' : text.value.trim() === '' ? 'talk-text' : null,
)
/** One key for one note: pressed again after a failing, it stands once. */
let key = crypto.randomUUID()
watch([way, talker, text], () => {
  key = crypto.randomUUID()
})
async function begin(): Promise<void> {
  writing.value = true
  await nextTick()
  document.getElementById('talk-with')?.focus()
}
async function keep(): Promise<void> {
  if (missing.value !== null) {
    document.getElementById(missing.value)?.focus()
    return
  }
  await act(async () => {
    const body = { way: way.value, with: talker.value, text: text.value }
    await api.post('/api/orders/{id}/talks', { params: { id: props.order.id }, body, key })
    writing.value = false
    talker.value = ''
    text.value = ''
    emit('noted')
  })
}
function onKey(event: KeyboardEvent): void {
  if (!isMainKey(event) || event.repeat) return
  event.preventDefault()
  void keep()
}
</script>

<template>
  <section aria-labelledby="talks" class="mt-5">
    <h2 id="talks" class="head mb-1.5">What was said besides</h2>
    <ul v-if="order.talks.length > 0">
      <li v-for="t in order.talks" :key="t.id" class="border-b border-rule py-2">
        <p class="font-medium">{{ capital(TALK_WORDS[t.way]) }} with {{ t.with }}, {{ wording.moment(t.at) }}</p>
        <p class="whitespace-pre-line text-ink2">{{ t.text }}</p>
        <p class="small">noted by {{ t.by }}</p>
      </li>
    </ul>
    <p v-else-if="!writing" class="text-ink2">Nothing was noted.</p>
    <form v-if="writing" class="mt-1.5" aria-label="Note what was said" @submit.prevent="keep" @keydown="onKey">
      <p class="leading-8">
        <BlankChoice
          v-model="way"
          :choices="TALK_WAYS.map((id) => ({ id, name: capital(TALK_WORDS[id]) }))"
          label="How it was said"
          placeholder=""
          light
        />
        with
        <input
          id="talk-with"
          v-model="talker"
          class="blank blank-input min-w-[40px]"
          :maxlength="LONGEST_TALKER"
          autocomplete="off"
          aria-label="With whom"
          placeholder="whom"
          data-needed="true"
        />:
      </p>
      <textarea
        id="talk-text"
        v-model="text"
        class="field mt-1"
        rows="3"
        :maxlength="LONGEST_TALK"
        aria-label="What was said"
      />
      <p v-if="trouble" class="notice-red mt-2" role="alert">{{ trouble }}</p>
      <p class="mt-2 flex flex-wrap gap-2">
        <button type="submit" class="action" :data-missing="missing !== null" :aria-busy="busy">Note it</button>
        <button type="button" class="action" @click="writing = false">Leave it</button>
      </p>
    </form>
    <p v-else-if="mayNote" class="small mt-1.5">
      <button type="button" class="quiet-link min-h-6" @click="begin">Note a call, a mail or a visit</button>
    </p>
  </section>
</template>
