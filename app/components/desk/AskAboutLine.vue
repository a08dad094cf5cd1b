<script setup lang="ts">
import type { DeskLine } from '#shared/contract/order'
import DialogSheet from '~/components/base/DialogSheet.vue'
import MainAction from '~/components/base/MainAction.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useUndo } from '~/composables/base/use-undo'

/** Whoever asked for the marked line is asked something about it, and until they answer it waits elsewhere. */
const props = defineProps<{ line: DeskLine }>()
const emit = defineEmits<{ done: [] }>()
const api = useApi()
const undo = useUndo()
const { busy, trouble, act } = useAct()
/** The line about which it is being written. */
const about = shallowRef<DeskLine | null>(null)
const field = useTemplateRef<HTMLTextAreaElement>('field')

/** What was typed about lines and not sent, by the line: it is there again when one comes back to it. */
const kept = useState<Record<string, string>>('questions-about-lines', () => ({}))
const question = computed({
  get: () => kept.value[about.value?.id ?? ''] ?? '',
  set: (text) => {
    if (about.value !== null) kept.value = { ...kept.value, [about.value.id]: text }
  },
})
function begin(): void {
  about.value = props.line
}
function leave(): void {
  about.value = null
}
async function send(): Promise<void> {
  const line = about.value
  if (line === null) return
  if (question.value.trim() === '') {
    field.value?.focus()
    return
  }
  const text = question.value
  const isDone = await act(() =>
    api.post('/api/desk/lines/{id}/questions', { params: { id: line.id }, body: { text }, key: crypto.randomUUID() }),
  )
  if (!isDone) return
  question.value = ''
  about.value = null
  emit('done')
  undo.show(
    `${line.asker} is asked; “${line.description}” waits for the answer.`,
    'Have it wait here',
    10,
    async () => {
      await api.post('/api/desk/aside', { body: { lineIds: [line.id], until: null, reason: '' } })
      emit('done')
    },
  )
}
</script>

<template>
  <p class="small mt-1">
    <button type="button" class="quiet-link min-h-6 text-left" @click="begin">Ask {{ line.asker }} about it</button>
  </p>
  <DialogSheet v-if="about" :title="`Ask ${about.asker}`" :width="520" @main="send" @close="leave">
    <form class="mt-3" @submit.prevent="send">
      <label class="block"
        ><span class="label">What you would like to know of “{{ about.description }}”, {{ about.number }}</span
        ><textarea
          ref="field"
          v-model="question"
          class="field mt-1"
          rows="3"
          maxlength="4000"
          placeholder="Would the blue one do? It is here a week earlier."
        />
      </label>
      <p class="small mt-2">
        It stands with what is put aside until they answer, or you take it up again. What was approved stays approved.
      </p>
      <p v-if="trouble" class="notice-red mt-3" role="alert">{{ trouble }}</p>
      <div class="mt-4 flex items-center gap-3">
        <MainAction :missing="question.trim() === ''" :busy="busy" keys="Ctrl ⏎" @press="send">{{
          question.trim() === '' ? 'Write the question, then send it' : `Send the question to ${about.asker}`
        }}</MainAction>
        <button type="button" class="action shrink-0" @click="leave">Leave it</button>
      </div>
    </form>
  </DialogSheet>
</template>
