<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { isMainKey } from '~/composables/base/use-keys'

/** The frame of every dialog over the page: what it is about, its content, and the page dimmed behind it. */
withDefaults(defineProps<{ title: string; width?: number; hideTitle?: boolean }>(), { width: 460, hideTitle: false })
const emit = defineEmits<{ close: []; main: [] }>()
/** The key of the main action is the dialog's while it is open, not the page's behind it. */
function onKey(event: KeyboardEvent): void {
  if (!isMainKey(event)) return
  event.preventDefault()
  event.stopPropagation()
  emit('main')
}
/** Closing it gives the focus back to what had it before, unless something has it by then. */
const before = document.activeElement
onUnmounted(() => {
  requestAnimationFrame(() => {
    if (before instanceof HTMLElement && document.activeElement === document.body) before.focus()
  })
})
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('close')" @keydown="onKey">
    <div class="fixed inset-0 bg-ground/70" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center overflow-y-auto p-6 pt-16 max-[900px]:p-3">
      <DialogPanel
        class="flex max-h-[calc(100dvh-88px)] w-full flex-col rounded border border-ink bg-sheet p-6 max-[900px]:p-4"
        :style="{ maxWidth: `${width}px` }"
      >
        <DialogTitle :class="hideTitle ? 'sr-only' : 'sentence'">{{ title }}</DialogTitle>
        <slot />
      </DialogPanel>
    </div>
  </Dialog>
</template>
