<script setup lang="ts">
import type { SessionView } from '#shared/contract/session'
import { PASSWORD_LENGTH, passwordShape } from '#core/people/password'
import { formatCount } from '#shared/words/format'
import { sayPasswordReason } from '#shared/words/password'
import MainAction from '~/components/base/MainAction.vue'
import AccessTokens from '~/components/session/AccessTokens.vue'
import ProfileSentence from '~/components/session/ProfileSentence.vue'
import SecondFactor from '~/components/session/SecondFactor.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'

useHead({ title: 'Account · Rekko' })
const api = useApi()
const wording = useWording()
const current = ref('')
const next = ref('')
const seen = ref(false)
const trouble = ref('')
const done = ref('')
const busy = ref(false)
const currentBox = useTemplateRef<HTMLInputElement>('currentBox')
const nextBox = useTemplateRef<HTMLInputElement>('nextBox')

const { data, refresh, error } = await useAsyncData('sessions', () => api.get('/api/sessions'))
const { data: profile } = await useAsyncData('profile', () => api.get('/api/profile'))
const sessions = computed(() => data.value?.sessions ?? [])
const elsewhere = computed(() => sessions.value.filter((s) => !s.isThis))
const sentence = computed(() =>
  elsewhere.value.length === 0
    ? 'You are signed in here, and nowhere else.'
    : `You are signed in here and at ${formatCount(elsewhere.value.length, 'other place', 'other places')}.`,
)
const shape = computed(() => (next.value === '' ? undefined : passwordShape(next.value, current.value)[0]))
const missing = computed(() => current.value === '' || next.value === '' || shape.value !== undefined)
const words = computed(() =>
  missing.value
    ? 'Write the password of now, and the new one'
    : elsewhere.value.length === 0
      ? 'Change the password'
      : 'Change the password; sign out everywhere else',
)

async function change(): Promise<void> {
  if (busy.value) return
  trouble.value = ''
  done.value = ''
  if (missing.value) {
    ;(current.value === '' ? currentBox.value : nextBox.value)?.focus()
    return
  }
  busy.value = true
  try {
    await api.put('/api/session/password', { body: { current: current.value, next: next.value } })
    current.value = ''
    next.value = ''
    seen.value = false
    done.value = 'The password is changed. A mail says so, too.'
    currentBox.value?.focus()
  } catch (e) {
    trouble.value = sayError(e)
    // The one that has to be written again gets the focus, and nothing is lost.
    const wrong = (e as { fields?: { field: string }[] }).fields?.[0]?.field
    ;(wrong === 'next' ? nextBox.value : currentBox.value)?.focus()
  } finally {
    busy.value = false
    await refresh()
  }
}
const nameOf = (s: SessionView) => s.browser || 'An unknown browser'
/** Ends sessions, and says so; what was pressed is gone then, so the focus goes to the page. */
async function end(work: () => Promise<unknown>, said: string): Promise<void> {
  trouble.value = ''
  done.value = ''
  try {
    await work()
    done.value = said
  } catch (e) {
    trouble.value = sayError(e)
  }
  await refresh()
  await nextTick()
  document.getElementById('page')?.focus()
}
const endOne = (s: SessionView) =>
  end(() => api.remove('/api/sessions/{id}', { params: { id: s.id } }), `${nameOf(s)} is signed out.`)
const endOthers = () => end(() => api.remove('/api/sessions'), 'You are signed out everywhere else.')

usePlaceKeys([{ keys: 'Ctrl Enter', does: 'change the password' }], (e) => {
  if (isMainKey(e)) {
    e.preventDefault()
    void change()
  }
})
</script>

<template>
  <div>
    <PageNote>your account</PageNote>
    <SheetPage>
      <h1 class="sr-only">Account</h1>
      <ProfileSentence v-if="profile" :profile="profile" />
      <h2 class="head mt-8">Where you are signed in</h2>
      <p class="text-ink2">{{ sentence }}</p>
      <p v-if="error" class="notice-red mt-3">{{ sayError(error) }}</p>
      <table class="table mt-2">
        <caption class="sr-only">
          Where you are signed in
        </caption>
        <thead>
          <tr>
            <th scope="col">With</th>
            <th scope="col" class="max-[700px]:hidden">From</th>
            <th scope="col" class="max-[700px]:hidden">Since</th>
            <th scope="col">Last seen</th>
            <th scope="col" class="num">Next</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="s in sessions" :key="s.id">
            <td class="font-semibold">
              {{ nameOf(s) }}<span v-if="s.byDemo" class="small block font-normal">with one press, in the demo</span>
            </td>
            <td class="max-[700px]:hidden">{{ s.fromAddress || 'not known' }}</td>
            <td class="max-[700px]:hidden">
              <time :datetime="s.begunAt" :title="wording.exact(s.begunAt)">{{ wording.moment(s.begunAt) }}</time>
            </td>
            <td>
              <template v-if="s.isThis">here, now</template
              ><time v-else :datetime="s.seenAt" :title="wording.exact(s.seenAt)">{{ wording.moment(s.seenAt) }}</time>
            </td>
            <td class="num">
              <button
                v-if="!s.isThis"
                type="button"
                class="quiet-link"
                :aria-label="`Sign out ${nameOf(s)}`"
                @click="endOne(s)"
              >
                Sign out
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="elsewhere.length > 1" class="mt-3">
        <button type="button" class="quiet-link" @click="endOthers">Sign out everywhere else</button>
      </p>
      <h2 class="head mb-3 mt-9">Another password</h2>
      <form class="max-w-[420px] space-y-4" @submit.prevent="change">
        <div>
          <label class="label" for="current">The password of now</label
          ><input
            id="current"
            ref="currentBox"
            v-model="current"
            class="field"
            type="password"
            autocomplete="current-password"
          />
        </div>
        <div>
          <label class="label" for="next">The new one</label
          ><input
            id="next"
            ref="nextBox"
            v-model="next"
            class="field"
            :type="seen ? 'text' : 'password'"
            autocomplete="new-password"
            spellcheck="false"
            autocapitalize="none"
            aria-describedby="next-says"
          />
          <p id="next-says" class="small mt-1.5">
            {{ shape ? sayPasswordReason(shape) : `At least ${PASSWORD_LENGTH.least} characters, of whatever kind.` }}
          </p>
        </div>
        <label class="flex items-center gap-2"
          ><input v-model="seen" type="checkbox" /> Show what I write as the new one</label
        >
        <button type="submit" class="sr-only" tabindex="-1">Change the password</button>
      </form>
      <SecondFactor class="mt-9" />
      <AccessTokens class="mt-9" />
      <template #margin>
        <h2 class="head mb-1.5">A good password</h2>
        <p class="text-ink2">
          A few words that nobody would expect together are easy to keep in mind and hard to guess. What many people
          have, what repeats itself, and your name or the organisation’s are not taken.
        </p>
        <p class="mt-3 text-ink2">It need not be changed while you alone know it.</p>
        <h2 class="head mb-1.5 mt-6">What is kept of you?</h2>
        <p class="text-ink2"><a class="quiet-link" href="/api/profile/data" download>Take it along as a file.</a></p>
        <h2 class="head mb-1.5 mt-6">Something unknown in the list?</h2>
        <p class="text-ink2">Sign it out, change the password, and tell an administrator.</p>
      </template>
      <template #action>
        <p v-if="done" class="mb-2.5" role="status">{{ done }}</p>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <MainAction :missing="missing" :busy="busy" keys="Ctrl ⏎" @press="change">{{ words }}</MainAction>
      </template>
    </SheetPage>
  </div>
</template>
