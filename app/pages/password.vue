<script setup lang="ts">
import CodeField from '~/components/session/CodeField.vue'
import PasswordField from '~/components/session/PasswordField.vue'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'
import { useSessionStore } from '~/stores/session'

definePageMeta({ layout: false })
useHead({ title: 'Password · Rekko' })
const api = useApi()
const session = useSessionStore()
const route = useRoute()
const key = typeof route.query.key === 'string' ? route.query.key : ''
const email = ref('')
const next = ref('')
const code = ref('')
const needsCode = ref(false)
const busy = ref(false)
const trouble = ref('')
const told = ref('')

async function act(work: () => Promise<void>): Promise<void> {
  if (busy.value) return
  busy.value = true
  trouble.value = ''
  try {
    await work()
  } catch (e) {
    if (e instanceof ApiProblem && e.kind.endsWith('needs-code')) needsCode.value = true
    else trouble.value = sayError(e)
  } finally {
    busy.value = false
  }
}
const choose = () =>
  act(async () => {
    session.me = await api.put('/api/password-keys', { body: { key, next: next.value, code: code.value } })
    await navigateTo(session.me.landing, { replace: true })
  })
const mail = () =>
  act(async () => {
    await api.post('/api/password-keys', { body: { email: email.value } })
    told.value = 'If somebody here has this address, a mail is on the way to it. It opens for two hours.'
  })
</script>

<template>
  <main id="page" tabindex="-1" class="mx-auto max-w-[420px] px-6 py-16 outline-none">
    <template v-if="key">
      <h1 class="sentence">Choose a password; then you are in.</h1>
      <form class="mt-5 space-y-4" @submit.prevent="choose">
        <PasswordField id="next" v-model="next" label="Password" />
        <CodeField v-if="needsCode" id="code" v-model="code" />
        <p v-if="trouble" class="notice-red" role="alert">{{ trouble }}</p>
        <button type="submit" class="main-action" :aria-busy="busy">Choose it and sign in</button>
        <p class="small"><a class="quiet-link" href="/password">Have another address mailed</a></p>
      </form>
    </template>
    <template v-else>
      <h1 class="sentence">Say your e-mail address; a mail brings you in again.</h1>
      <form class="mt-5 space-y-4" @submit.prevent="mail">
        <div>
          <label class="label" for="email">E-mail</label
          ><input id="email" v-model="email" class="field" type="email" autocomplete="username" required />
        </div>
        <p v-if="trouble" class="notice-red" role="alert">{{ trouble }}</p>
        <p v-if="told" class="notice-green" role="status">{{ told }}</p>
        <button type="submit" class="main-action" :aria-busy="busy">Mail me a way in</button>
        <p class="small"><NuxtLink class="quiet-link" to="/sign-in">Back to signing in</NuxtLink></p>
      </form>
    </template>
  </main>
</template>
