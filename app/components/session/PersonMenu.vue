<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import type { Me, Notice } from '#shared/contract/session'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { useSessionStore } from '~/stores/session'

/** Oneself: what one was told, and the way out. */
defineProps<{ me: Me }>()
const api = useApi()
const session = useSessionStore()
const wording = useWording()
const notices = ref<Notice[] | null>(null)
const trouble = ref('')

async function look(): Promise<void> {
  try {
    notices.value = (await api.get<{ notices: Notice[] }>('/api/notices')).notices
    await api.post('/api/notices/read')
    await session.load()
  }
  catch (error) { trouble.value = sayError(error) }
}
async function leave(): Promise<void> {
  await api.remove('/api/session').catch(() => null)
  session.me = null
  window.location.assign('/sign-in')
}
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="flex items-center gap-2 font-semibold" @click="look">
      <span class="max-[900px]:hidden">{{ me.name }}</span><span class="hidden max-[900px]:inline">{{ me.name.split(' ')[0] }}</span>
      <span v-if="me.unread > 0" class="rounded-[3px] border border-edge px-1.5 text-[12px] leading-[18px] font-medium" :aria-label="`${me.unread} new`">{{ me.unread }}</span>
    </PopoverButton>
    <PopoverPanel class="picker right-0 top-full mt-2 w-[380px] max-h-[70dvh]! p-4!">
      <div class="mb-3 flex items-baseline justify-between"><h2 class="head">What you were told</h2><button type="button" class="quiet-link" @click="leave">Sign out</button></div>
      <p v-if="trouble" class="notice-red">{{ trouble }}</p>
      <p v-else-if="notices === null" class="text-ink3">Reading …</p>
      <p v-else-if="notices.length === 0" class="text-ink2">Nothing yet. When somebody decides on a request of yours, asks you something or orders it, it stands here.</p>
      <ul v-else>
        <li v-for="n in notices" :key="n.id" class="border-b border-rule py-2 last:border-0">
          <NuxtLink :to="`/trail/${n.aboutId}`" class="block hover:underline" :class="n.read ? 'text-ink2' : 'font-medium'">{{ n.sentence }}</NuxtLink>
          <time class="small" :datetime="n.at" :title="wording.exact(n.at)">{{ wording.moment(n.at) }}</time>
        </li>
      </ul>
    </PopoverPanel>
  </Popover>
</template>
