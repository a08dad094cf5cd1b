<script setup lang="ts">
import type { Me } from '#shared/contract/session'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'

const CodeField = defineAsyncComponent(() => import('~/components/session/CodeField.vue'))

/** E-mail and password. */
const emit = defineEmits<{ done: [me: Me] }>()
const api = useApi()
const email = ref('')
const password = ref('')
const code = ref('')
/** The password fits, and a second factor is asked for. */
const needsCode = ref(false)
const trouble = ref('')
const busy = ref(false)

async function signIn(): Promise<void> {
  busy.value = true
  trouble.value = ''
  try {
    emit(
      'done',
      await api.post('/api/session', { body: { email: email.value, password: password.value, code: code.value } }),
    )
  } catch (error) {
    if (error instanceof ApiProblem && error.kind.endsWith('needs-code')) {
      needsCode.value = true
    } else {
      trouble.value = sayError(error)
      code.value = ''
    }
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="space-y-4" @submit.prevent="signIn">
    <div>
      <label class="label" for="email">E-mail</label
      ><input id="email" v-model="email" class="field" type="email" autocomplete="username" required />
    </div>
    <div>
      <label class="label" for="password">Password</label
      ><input id="password" v-model="password" class="field" type="password" autocomplete="current-password" required />
    </div>
    <CodeField v-if="needsCode" id="code" v-model="code" takes-focus />
    <p v-if="trouble" class="notice-red" role="alert">{{ trouble }}</p>
    <button type="submit" class="main-action" :aria-busy="busy">Sign in and see what waits</button>
    <p class="small"><a class="quiet-link" href="/password">I have forgotten it, or never had one</a></p>
  </form>
</template>
