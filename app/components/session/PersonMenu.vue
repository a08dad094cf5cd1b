<script setup lang="ts">
import type { Me } from '#shared/contract/session'

/** Oneself, at the end of the stations: what one was told, and the way out, behind one's name. */
defineProps<{ me: Me }>()
const PersonPanel = defineAsyncComponent(() => import('./PersonPanel.vue'))
const open = ref(false)
</script>

<template>
  <div>
    <button
      type="button"
      class="flex items-center gap-2 font-semibold"
      aria-haspopup="dialog"
      :aria-expanded="open"
      @click="open = true"
    >
      <span class="max-[900px]:hidden">{{ me.name }}</span><span class="hidden max-[900px]:inline">{{
        me.name.split(' ')[0]
      }}</span>
      <span
        v-if="me.unread > 0"
        class="rounded-[3px] border border-edge px-1.5 text-[12px] leading-[18px] font-medium"
        :aria-label="`${me.unread} new`"
        >{{ me.unread }}</span
      >
    </button>
    <PersonPanel v-if="open" @close="open = false" />
  </div>
</template>
