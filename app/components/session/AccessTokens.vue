<script setup lang="ts">
import { capital, listWords } from '#shared/words/format'
import { sayError, useApi } from '~/composables/base/use-api'
import { submitByMainKey } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'

/** Tokens by which scripts act for one: some of one's rights, for a time, shown once. */
const api = useApi()
const wording = useWording()
const { data, refresh } = await useAsyncData('tokens', () => api.get('/api/tokens'))
const tokens = computed(() => data.value?.tokens ?? [])
const making = ref(false)
const name = ref('')
const days = ref('90')
const rights = ref<string[]>([])
const made = ref('')
const busy = ref(false)
const trouble = ref('')

async function act(work: () => Promise<unknown>): Promise<void> {
  if (busy.value) return
  busy.value = true
  trouble.value = ''
  try {
    await work()
    await refresh()
  } catch (e) {
    trouble.value = sayError(e)
  } finally {
    busy.value = false
  }
}
const DAYS = ['1', '7', '30', '90', '366']
const lacks = computed(() => (name.value.trim() === '' ? 'name' : rights.value.length === 0 ? 'rights' : ''))
const make = () =>
  act(async () => {
    if (lacks.value !== '') {
      document.getElementById(lacks.value === 'name' ? 'token-name' : 'token-rights')?.focus()
      throw new Error(lacks.value === 'name' ? 'Say what it is for.' : 'Tick what it may do.')
    }
    // The server knows which rights there are.
    const chosen = rights.value as never[]
    made.value = (
      await api.post('/api/tokens', { body: { name: name.value, rights: chosen, days: Number(days.value) } })
    ).token
    making.value = false
    name.value = ''
    rights.value = []
  })
const end = (id: string) => act(() => api.remove('/api/tokens/{id}', { params: { id } }))
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(made.value).catch(() => undefined)
}
</script>

<template>
  <section aria-labelledby="tokens">
    <h2 id="tokens" class="head mb-1">Tokens for scripts</h2>
    <p class="max-w-[64ch]">
      A script acts for you with a token, and never does more than you may;
      <a class="quiet-link" href="/api">the API</a>
      says what there is.
      <button v-if="!making" type="button" class="quiet-link min-h-6" @click="making = true">Make a token</button>
    </p>
    <div v-if="made" class="mt-2 max-w-[720px]">
      <p class="notice-amber">Copy it now; it is shown this once.</p>
      <p class="mt-2 flex flex-wrap items-center gap-3">
        <code class="rounded border border-rule bg-margin px-2 py-1 break-all">{{ made }}</code>
        <button type="button" class="quiet-link min-h-6" @click="copy">Copy</button>
        <button type="button" class="quiet-link min-h-6" @click="made = ''">I have it</button>
      </p>
    </div>
    <form v-if="making" class="mt-3 max-w-[720px] space-y-3" @submit.prevent="make" @keydown="submitByMainKey">
      <div class="flex flex-wrap gap-4">
        <div class="min-w-[240px] flex-1">
          <label class="label" for="token-name">What it is for</label
          ><input id="token-name" v-model="name" class="field" maxlength="100" autocomplete="off" />
        </div>
        <div>
          <label class="label" for="token-days">Opens for so many days</label
          ><select id="token-days" v-model="days" class="field">
            <option v-for="d in DAYS" :key="d" :value="d">{{ d }}</option>
          </select>
        </div>
      </div>
      <fieldset id="token-rights" tabindex="-1">
        <legend class="label">What it may do</legend>
        <div class="flex flex-wrap gap-x-5 gap-y-1">
          <label v-for="r in data?.rights ?? []" :key="r" class="flex min-h-6 items-center gap-1.5"
            ><input v-model="rights" type="checkbox" class="size-4 accent-[var(--green)]" :value="r" />{{ r }}</label
          >
        </div>
      </fieldset>
      <p class="flex gap-2.5">
        <button type="submit" class="action" :aria-busy="busy">Make the token</button>
        <button type="button" class="action" @click="making = false">Leave it</button>
      </p>
    </form>
    <p v-if="trouble" class="notice-red mt-2 max-w-[640px]" role="alert">{{ trouble }}</p>
    <table v-if="tokens.length > 0" class="table mt-2">
      <caption class="sr-only">
        Your tokens
      </caption>
      <thead>
        <tr>
          <th scope="col">For</th>
          <th scope="col">May</th>
          <th scope="col">Opens until</th>
          <th scope="col">Last used</th>
          <th scope="col" class="num">Next</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="t in tokens" :key="t.id">
          <td class="font-semibold">{{ t.name }}</td>
          <td class="text-ink2">{{ capital(listWords(t.rights)) }}</td>
          <td>
            <time :datetime="t.expiresAt" :title="wording.exact(t.expiresAt)">{{ wording.moment(t.expiresAt) }}</time>
          </td>
          <td class="text-ink2">{{ t.usedAt === null ? 'never' : wording.moment(t.usedAt) }}</td>
          <td class="num">
            <button type="button" class="quiet-link" :aria-label="`End ${t.name}`" @click="end(t.id)">End</button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
