<script setup lang="ts">
import type { AttachmentView } from '#shared/contract/requisition'
import { formatSize } from '#shared/words/format'

/** What is attached; files may be dropped anywhere on the page, or chosen. */
defineProps<{ attachments: readonly AttachmentView[]; requisitionId: string; mayChange: boolean; uploading: string | null }>()
const emit = defineEmits<{ add: [files: File[]]; remove: [id: string] }>()
const chooser = useTemplateRef<HTMLInputElement>('chooser')
function choose(event: Event): void {
  const box = event.target as HTMLInputElement
  emit('add', [...box.files ?? []])
  box.value = ''
}
</script>

<template>
  <div class="flex flex-wrap items-center gap-2">
    <span v-for="a in attachments" :key="a.id" class="inline-flex max-w-full items-center gap-2 rounded border border-edge px-2.5 py-1">
      <a class="min-w-0 truncate hover:underline" :href="`/api/requisitions/${requisitionId}/attachments/${a.id}`">{{ a.name }}</a><span class="small shrink-0">{{ a.kind }}, {{ formatSize(a.size) }}</span>
      <button v-if="mayChange" type="button" class="small quiet-link shrink-0" :aria-label="`Take ${a.name} off`" @click="emit('remove', a.id)">take off</button>
    </span>
    <span v-if="uploading" class="small" role="status">taking in {{ uploading }} …</span>
    <template v-if="mayChange">
      <button type="button" class="action min-h-[32px]!" @click="chooser?.click()">Attach a quote</button>
      <input ref="chooser" type="file" class="sr-only" tabindex="-1" aria-label="Attach files" accept="application/pdf,image/png,image/jpeg" multiple @change="choose">
      <span class="small max-[900px]:hidden">or drop files anywhere on this page</span>
    </template>
  </div>
</template>
