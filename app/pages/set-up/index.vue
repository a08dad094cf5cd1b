<script setup lang="ts">
import type { SetUpStep } from '#core/lists/set-up'
import type { HeldView } from '#shared/contract/lists'
import { capital, formatCount, inWords } from '#shared/words/format'
import { LIST_WORDS, saySetUpStep } from '#shared/words/lists'
import { LISTS } from '#core/lists/definitions'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import StationPost from '~/components/base/StationPost.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

useHead({ title: 'Set-up · Rekko' })
const api = useApi()
const session = useSessionStore()
const wording = useWording()
const { data, error, refresh } = await useAsyncData('set-up', () => api.get('/api/set-up'))
useLive((changes) => {
  if (changes.some((c) => c.kind === 'settings' || c.kind === 'again')) void refresh()
})
const held = computed(() => data.value?.held ?? [])
const steps = computed(() => data.value?.steps ?? [])
const open = computed(() => steps.value.filter((s) => !s.done))
const PARTS = [
  { before: 'request', title: 'Before the first request' },
  { before: 'order', title: 'Before the first order' },
  { before: 'use', title: 'Before everybody uses it' },
] as const
const sentence = computed(() => {
  const first = open.value[0]
  if (first === undefined) return 'All is there: requests can be raised, decided and ordered.'
  const count = open.value.filter((s) => s.before === first.before).length
  const many = `${capital(inWords(count))} ${count === 1 ? 'thing is' : 'things are'} missing`
  return first.before === 'request'
    ? `${many} before the first request can be sent.`
    : first.before === 'order'
      ? `Requests can be raised; ${many.toLowerCase()} before orders go out.`
      : `Requests and orders work; ${many.toLowerCase()} for everybody to use it.`
})
const mayKeep = (s: SetUpStep) => session.me?.rights.includes(LISTS[s.list].right) === true
const keeper = (s: SetUpStep) => (LISTS[s.list].right === 'keep settings' ? 'an administrator' : 'finance')
const next = computed(() => open.value.find((s) => mayKeep(s) && s.code !== 'uninvited'))
const uninvited = computed(() => steps.value.find((s) => s.code === 'uninvited' && !s.done))
const busy = ref(false)
const trouble = ref('')
const told = ref('')
const columnName = (h: HeldView, key: string) => LISTS[h.list].columns.find((c) => c.key === key)?.name ?? key
const sayValue = (text: string | undefined) =>
  text === undefined || text === '' ? 'none' : /^[\d.]+$/.test(text) ? wording.decimal(text) : text
const sayHeld = (h: HeldView) =>
  Object.keys(h.after)
    .map((k) => `${columnName(h, k).toLowerCase()} from ${sayValue(h.before[k])} to ${sayValue(h.after[k])}`)
    .join('; ')
/** Does one thing at a time, and reads what is missing then. */
async function act(work: () => Promise<string>): Promise<void> {
  if (busy.value) return
  busy.value = true
  trouble.value = ''
  try {
    told.value = await work()
    await refresh()
    // What was pressed may be gone.
    await nextTick()
    if (document.activeElement === document.body) document.getElementById('page')?.focus()
  } catch (e) {
    trouble.value = sayError(e)
  } finally {
    busy.value = false
  }
}
const confirm = (h: HeldView) =>
  act(async () => {
    await api.post('/api/held-changes/{id}/confirmations', { params: { id: h.id }, key: crypto.randomUUID() })
    return `${h.name}: it holds from now on.`
  })
const drop = (h: HeldView) =>
  act(async () => {
    await api.remove('/api/held-changes/{id}', { params: { id: h.id } })
    return `${h.name}: it stays as it was.`
  })
const invite = () =>
  act(async () => {
    const { invited } = await api.post('/api/invitations', { key: crypto.randomUUID() })
    const many = formatCount(invited, 'invitation is', 'invitations are')
    return `${capital(many)} on the way; each opens for seven days.`
  })
function go(): void {
  if (next.value !== undefined) void navigateTo(`/set-up/lists/${next.value.list}`)
  else if (uninvited.value !== undefined && mayKeep(uninvited.value)) void invite()
}
const words = computed(() =>
  next.value !== undefined
    ? `Go on with ${LIST_WORDS[next.value.list].many}`
    : uninvited.value !== undefined
      ? `Invite ${formatCount(uninvited.value.count, 'person', 'people')} by mail`
      : '',
)
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'go on with what is missing next' }], (event) => {
  if (isMainKey(event)) {
    event.preventDefault()
    go()
  }
})
</script>

<template>
  <div>
    <PageNote>by hand or by file, in any order</PageNote>
    <SheetPage>
      <h1 class="sentence">{{ sentence }}</h1>
      <p v-if="error" class="notice-red mt-3">{{ sayError(error) }}</p>
      <section v-if="held.length > 0" class="mt-6" aria-label="What waits for a second person">
        <h2 class="head border-b border-ink pb-1.5">What waits for a second person</h2>
        <ul>
          <li v-for="h in held" :key="h.id" class="border-b border-rule py-2.5">
            <span class="font-medium">{{ h.name }}</span>: {{ sayHeld(h) }}
            <span class="small block"
              >asked for by {{ h.isOwn ? 'you' : h.by }} {{ wording.moment(h.at)
              }}<template v-if="h.mayConfirm">
                ·
                <button type="button" class="quiet-link min-h-6 font-semibold text-amber-ink" @click="confirm(h)">
                  put it in force
                </button>
                ·
                <button type="button" class="quiet-link min-h-6" @click="drop(h)">leave it as it was</button></template
              ><template v-else>
                · another administrator confirms it, or finance where there is no other
                <template v-if="h.isOwn"
                  >·
                  <button type="button" class="quiet-link min-h-6" @click="drop(h)">
                    ask for it no more
                  </button></template
                ></template
              ></span
            >
          </li>
        </ul>
      </section>
      <section v-for="p in PARTS" :key="p.before" class="mt-6" :aria-label="p.title">
        <h2 class="head border-b border-ink pb-1.5">{{ p.title }}</h2>
        <ul>
          <li
            v-for="s in steps.filter((x) => x.before === p.before)"
            :key="s.code"
            class="flex items-baseline gap-3 border-b border-rule py-2.5"
          >
            <StationPost size="small" :look="s.done ? 'filled' : 'empty'" :share="1" />
            <span class="min-w-0 flex-1" :class="s.done ? 'text-ink2' : 'font-medium'">{{ saySetUpStep(s) }}</span>
            <NuxtLink v-if="mayKeep(s)" class="quiet-link shrink-0" :to="`/set-up/lists/${s.list}`">{{
              LIST_WORDS[s.list].title
            }}</NuxtLink>
            <span v-else-if="!s.done" class="small shrink-0">{{ keeper(s) }} keeps that</span>
          </li>
        </ul>
      </section>
      <template #margin>
        <p class="text-ink2">
          Each list can be typed or brought as a file, CSV or XLSX. A file is shown before anything is kept, and taken
          back as easily.
        </p>
        <p v-if="told" class="notice-green mt-3" role="status">{{ told }}</p>
      </template>
      <template #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <MainAction v-if="words" :busy="busy" keys="Ctrl ⏎" @press="go">{{ words }}</MainAction>
        <button v-if="uninvited && next && mayKeep(uninvited)" type="button" class="action mt-2 w-full" @click="invite">
          Invite {{ formatCount(uninvited.count, 'person', 'people') }} by mail
        </button>
      </template>
    </SheetPage>
  </div>
</template>
