<script setup lang="ts">
import DialogSheet from '~/components/base/DialogSheet.vue'

/** To which colleague a tray goes: those who may issue it first. */
defineProps<{
  supplier: string
  buyers: readonly { readonly id: string; readonly name: string; readonly mayIssue: boolean }[]
}>()
const emit = defineEmits<{ pass: [to: { id: string; name: string }]; close: [] }>()
</script>

<template>
  <DialogSheet :title="`Who goes on with the tray for ${supplier}?`" @close="emit('close')">
    <p class="mt-2 text-ink2">It lies on their Desk then, with everything on it; they hear of it.</p>
    <ul v-if="buyers.length > 0" class="mt-3 divide-y divide-rule border-y border-rule">
      <li v-for="b in buyers" :key="b.id" class="flex items-baseline justify-between gap-4 py-2">
        <span
          >{{ b.name
          }}<span class="small block">{{
            b.mayIssue ? 'the ordering limit covers it' : 'the ordering limit does not cover it'
          }}</span></span
        ><button type="button" class="action" @click="emit('pass', b)">Pass it to {{ b.name }}</button>
      </li>
    </ul>
    <p v-else class="mt-3">Nobody else buys for every department whose lines lie on it.</p>
    <div class="mt-4"><button type="button" class="quiet-link" @click="emit('close')">Keep it</button></div>
  </DialogSheet>
</template>
