<script setup lang="ts">
import type { DemoPerson, Me } from '#shared/contract/session'
import SignInForm from '~/components/session/SignInForm.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { useSessionStore } from '~/stores/session'

definePageMeta({ layout: false })
useHead({ title: 'Sign in · Rekko' })

const api = useApi()
const route = useRoute()
const session = useSessionStore()
const trouble = ref('')
const busy = ref('')
const { data, error } = await useAsyncData('demo-people', () => api.get('/api/demo-people'))
const people = computed(() => data.value?.people ?? [])

function enter(me: Me): void {
  session.me = me
  const to = typeof route.query.to === 'string' && /^\/(?!\/)/.test(route.query.to) ? route.query.to : me.landing
  void navigateTo(to)
}
async function press(p: DemoPerson): Promise<void> {
  busy.value = p.id
  try {
    enter(await api.post('/api/session/demo', { body: { personId: p.id } }))
  } catch (e) {
    trouble.value = sayError(e)
  } finally {
    busy.value = ''
  }
}
</script>

<template>
  <main
    class="mx-auto grid min-h-dvh max-w-[1180px] content-start gap-x-14 gap-y-8 px-6 py-10"
    :class="people.length > 0 ? 'min-[900px]:grid-cols-[minmax(0,1fr)_340px]' : 'max-w-[420px]!'"
  >
    <div :class="people.length > 0 ? 'min-[900px]:col-span-2' : ''">
      <p class="flex items-center gap-2 font-serif text-[22px] font-medium">
        <svg width="22" height="22" viewBox="0 0 24 24" aria-hidden="true">
          <rect x="4" y="4" width="5" height="15" rx="1.5" fill="var(--ink)" />
          <rect x="13" y="9" width="5" height="10" rx="1.5" fill="none" stroke="var(--ink)" stroke-width="1.8" />
          <path d="M1 21h22" stroke="var(--ink)" stroke-width="1.8" /></svg
        >Rekko
      </p>
      <h1 class="sentence mt-5">
        {{
          people.length > 0
            ? 'This is the demo: Hallamere Oceanarium. Come in as somebody who works there.'
            : 'Say what is needed; see where it stands.'
        }}
      </h1>
    </div>
    <section
      v-if="people.length > 0"
      aria-label="People of the demo"
      class="overflow-hidden rounded border border-strong bg-sheet"
    >
      <ul>
        <li v-for="p in people" :key="p.id" class="border-b border-rule last:border-0">
          <button
            type="button"
            :class="[
              'grid w-full grid-cols-[270px_minmax(0,1fr)] gap-4 px-5 py-2 text-left hover:bg-green-ground',
              'max-[700px]:grid-cols-1 max-[700px]:gap-0',
            ]"
            :aria-busy="busy === p.id"
            @click="press(p)"
          >
            <span
              ><span class="block font-semibold">{{ p.name }}</span
              ><span class="small block">{{ p.jobTitle }}, {{ p.department }}</span></span
            >
            <span class="text-ink2">{{ p.note }}</span>
          </button>
        </li>
      </ul>
    </section>
    <section aria-label="Sign in with e-mail">
      <p v-if="error" class="notice-red mb-4">Rekko cannot reach its database just now. Try again in a moment.</p>
      <p v-if="trouble" class="notice-red mb-4" role="alert">{{ trouble }}</p>
      <h2 v-if="people.length > 0" class="head mb-3">Or with e-mail and password</h2>
      <SignInForm @done="enter" />
      <p v-if="data?.postOffice" class="small mt-6">
        All mail of the demo can be read in the <a class="quiet-link" :href="data.postOffice">post office</a>.
      </p>
    </section>
  </main>
</template>
