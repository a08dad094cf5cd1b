<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { useKeysStore } from '~/composables/base/use-keys'

/** F1: the keys of the place. */
const keys = useKeysStore()
</script>

<template>
  <Dialog :open="keys.open" class="relative z-50" @close="keys.open = false">
    <div class="fixed inset-0 bg-ground/70" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start justify-center overflow-y-auto p-6 pt-24">
      <DialogPanel class="w-full max-w-[460px] rounded border border-ink bg-sheet p-6">
        <DialogTitle class="sentence">The keys of this place.</DialogTitle>
        <dl class="mt-4">
          <div v-for="line in keys.lines" :key="line.keys" class="flex justify-between gap-6 border-b border-rule py-2">
            <dt class="font-medium">{{ line.keys }}</dt>
            <dd class="text-right text-ink2">{{ line.does }}</dd>
          </div>
        </dl>
        <button type="button" class="action mt-5" @click="keys.open = false">Back to the work</button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
