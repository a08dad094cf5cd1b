<script setup lang="ts">
import type { RemarkView } from '#shared/contract/document'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { submitByMainKey } from '~/composables/base/use-keys'

/** Answers what one was asked about a document. */
const props = defineProps<{ documentId: string; questions: readonly RemarkView[] }>()
const emit = defineEmits<{ answered: [] }>()
const api = useApi()
const { busy, trouble, act } = useAct()
const text = ref('')
async function answer(): Promise<void> {
  if (text.value.trim() === '') return
  const done = await act(() =>
    api.post('/api/documents/{id}/answers', {
      params: { id: props.documentId },
      body: { text: text.value },
      key: crypto.randomUUID(),
    }),
  )
  if (done) {
    text.value = ''
    emit('answered')
  }
}
</script>

<template>
  <form class="mt-3" @submit.prevent="answer" @keydown="submitByMainKey">
    <p v-for="q in questions" :key="q.id" class="notice-amber mb-2">{{ q.name }} asks you: “{{ q.text }}”</p>
    <label class="sr-only" for="answer">Your answer</label>
    <textarea
      id="answer"
      v-model="text"
      class="field"
      rows="2"
      maxlength="4000"
      placeholder="Your answer goes to whoever asked"
    />
    <p v-if="trouble" class="notice-red mt-2" role="alert">{{ trouble }}</p>
    <button type="submit" class="action mt-2" :disabled="busy || text.trim() === ''">Answer</button>
  </form>
</template>
