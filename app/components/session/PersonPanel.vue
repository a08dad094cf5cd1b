<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import type { Notice } from '#shared/contract/session'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { besideFor } from '~/composables/base/places'
import { useSessionStore } from '~/stores/session'

/** What one was told, newest first, beneath one's name; reading it marks it read. */
const emit = defineEmits<{ close: [] }>()
const api = useApi()
const session = useSessionStore()
const wording = useWording()
const beside = computed(() => besideFor(session.me?.rights ?? []))
const notices = ref<Notice[] | null>(null)
const trouble = ref('')

onMounted(async () => {
  try {
    notices.value = (await api.get('/api/notices')).notices
    await api.post('/api/notices/read')
    await session.load()
  } catch (error) {
    trouble.value = sayError(error)
  }
})
async function leave(): Promise<void> {
  await api.remove('/api/session').catch(() => null)
  session.me = null
  window.location.assign('/sign-in')
}
</script>

<template>
  <Dialog :open="true" class="relative z-40" @close="emit('close')">
    <div class="fixed inset-0 flex justify-end p-5 pt-12 max-[900px]:p-3 max-[900px]:pt-11">
      <DialogPanel
        class="h-fit max-h-[70dvh] w-full max-w-[380px] overflow-y-auto rounded border border-ink bg-sheet p-4"
      >
        <div class="mb-3 flex items-baseline justify-between">
          <DialogTitle class="head">What you were told</DialogTitle
          ><span class="flex gap-4"
            ><NuxtLink class="quiet-link" to="/account" @click="emit('close')">Account</NuxtLink
            ><button type="button" class="quiet-link" @click="leave">Sign out</button></span
          >
        </div>
        <p v-if="beside.length > 0" class="mb-3 flex gap-4 min-[700px]:hidden">
          <NuxtLink v-for="b in beside" :key="b.name" class="quiet-link" :to="b.path" @click="emit('close')">{{
            b.name
          }}</NuxtLink>
        </p>
        <p v-if="trouble" class="notice-red">{{ trouble }}</p>
        <p v-else-if="notices === null" class="text-ink3">Reading …</p>
        <p v-else-if="notices.length === 0" class="text-ink2">
          Nothing yet. When somebody decides on a request of yours, asks you something or orders it, it stands here.
        </p>
        <ul v-else>
          <li v-for="n in notices" :key="n.id" class="border-b border-rule py-2 last:border-0">
            <NuxtLink
              :to="n.link ?? '/mine'"
              class="block hover:underline"
              :class="n.read ? 'text-ink2' : 'font-medium'"
              @click="emit('close')"
              >{{ n.sentence }}</NuxtLink
            >
            <time class="small" :datetime="n.at" :title="wording.exact(n.at)">{{ wording.moment(n.at) }}</time>
          </li>
        </ul>
      </DialogPanel>
    </div>
  </Dialog>
</template>
