<script setup lang="ts">
import { encode } from 'uqr'
import { formatCount } from '#shared/words/format'
import CodeField from '~/components/session/CodeField.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { submitByMainKey } from '~/composables/base/use-keys'
import { useSessionStore } from '~/stores/session'

/** The second factor: begun by a picture or by hand, confirmed by a code, with recovery codes, and taken away again. */
const api = useApi()
const session = useSessionStore()
const { data, refresh } = await useAsyncData('second-factor', () => api.get('/api/second-factor'))
const begun = shallowRef<{ readonly secret: string; readonly address: string } | null>(null)
const codes = ref<readonly string[]>([])
const code = ref('')
const asks = ref<'end' | 'renew' | null>(null)
const busy = ref(false)
const trouble = ref('')
const told = ref('')
/** The picture of the secret: a square for each dark module, in rows. */
const picture = computed(() => {
  const { size, data: rows } = encode(begun.value?.address ?? '', { border: 2 })
  const dark = rows.flatMap((row, y) => row.flatMap((on, x) => (on ? [`M${x} ${y}h1v1h-1z`] : [])))
  return { size, path: dark.join('') }
})
const inFours = (secret: string) => secret.match(/.{1,4}/g)?.join(' ') ?? secret

async function act(work: () => Promise<void>): Promise<void> {
  if (busy.value) return
  busy.value = true
  trouble.value = ''
  told.value = ''
  try {
    await work()
    code.value = ''
  } catch (e) {
    trouble.value = sayError(e)
    return
  } finally {
    busy.value = false
  }
  // What comes next may be pressed while the page reads anew.
  await Promise.all([refresh(), session.load()]).catch((e: unknown) => (trouble.value = sayError(e)))
}
async function focusCode(): Promise<void> {
  await nextTick()
  document.getElementById('factor-code')?.focus()
}
const begin = () =>
  act(async () => {
    begun.value = await api.post('/api/second-factor')
    void focusCode()
  })
const confirm = () =>
  act(async () => {
    codes.value = (await api.put('/api/second-factor', { body: { code: code.value } })).codes
    begun.value = null
    told.value = 'From now on signing in asks for a code.'
  })
const withCode = () =>
  act(async () => {
    if (asks.value === 'renew')
      codes.value = (await api.post('/api/recovery-codes', { body: { code: code.value } })).codes
    else {
      await api.put('/api/second-factor/end', { body: { code: code.value } })
      codes.value = []
      told.value = 'Signing in asks for no code any more.'
    }
    asks.value = null
  })
function ask(what: 'end' | 'renew'): void {
  asks.value = what
  void focusCode()
}
</script>

<template>
  <section aria-labelledby="second-factor">
    <h2 id="second-factor" class="head mb-1">A second factor</h2>
    <p v-if="data?.holds" class="max-w-[64ch]">
      Signing in asks for a code of your application;
      {{ formatCount(data.codes, 'recovery code is', 'recovery codes are') }}
      left.
      <template v-if="asks === null">
        <button type="button" class="quiet-link min-h-6" @click="ask('renew')">Make recovery codes anew</button> or
        <button type="button" class="quiet-link min-h-6" @click="ask('end')">take the second factor away</button>.
      </template>
    </p>
    <p v-else-if="begun === null" class="max-w-[64ch]">
      <span v-if="data?.asked" class="notice-amber mb-2 block"
        >Your organisation asks for one: until it is set up, nothing else opens.</span
      >
      With an application for codes on your telephone, whoever knows your password alone does not come in.
      <button type="button" class="quiet-link min-h-6" @click="begin">Set it up</button>
    </p>
    <div v-if="begun" class="mt-2 grid max-w-[640px] grid-cols-[180px_minmax(0,1fr)] gap-6 max-[700px]:grid-cols-1">
      <svg
        class="size-[180px] rounded border border-rule bg-white"
        role="img"
        aria-label="Picture of the secret"
        :viewBox="`0 0 ${picture.size} ${picture.size}`"
        shape-rendering="crispEdges"
      >
        <path :d="picture.path" fill="#000" />
      </svg>
      <form class="space-y-3" @submit.prevent="confirm" @keydown="submitByMainKey">
        <p>Take the picture with your application, or type this into it:</p>
        <p class="font-semibold tabular-nums">{{ inFours(begun.secret) }}</p>
        <CodeField id="factor-code" v-model="code" />
        <p class="flex gap-2.5">
          <button type="submit" class="action" :aria-busy="busy">Confirm by this code</button>
          <button type="button" class="action" @click="begun = null">Leave it</button>
        </p>
      </form>
    </div>
    <form
      v-if="asks !== null"
      class="mt-2 max-w-[420px] space-y-3"
      @submit.prevent="withCode"
      @keydown="submitByMainKey"
    >
      <CodeField id="factor-code" v-model="code" />
      <p class="flex gap-2.5">
        <button type="submit" class="action" :class="asks === 'end' ? 'action-danger' : ''" :aria-busy="busy">
          {{ asks === 'end' ? 'Take the second factor away' : 'Make them anew; the old ones open nothing any more' }}
        </button>
        <button type="button" class="action" @click="asks = null">Leave it</button>
      </p>
    </form>
    <div v-if="codes.length > 0" class="mt-3 max-w-[640px]">
      <p class="notice-amber">
        Write these down or print them; they are shown this once. Each opens once where your application is lost.
      </p>
      <ul class="mt-2 grid grid-cols-2 gap-x-8 font-semibold tabular-nums" aria-label="Recovery codes">
        <li v-for="c in codes" :key="c" class="border-b border-rule py-1">{{ c }}</li>
      </ul>
      <button type="button" class="quiet-link mt-2 min-h-6" @click="codes = []">I have them</button>
    </div>
    <p v-if="told" class="mt-2" role="status">{{ told }}</p>
    <p v-if="trouble" class="notice-red mt-2 max-w-[640px]" role="alert">{{ trouble }}</p>
  </section>
</template>
