<script setup lang="ts">
import type { PersonPage } from '#shared/contract/personal'
import type { PersonFound } from '#shared/contract/people'
import { capital, formatCount, listWords } from '#shared/words/format'
import LetLeave from '~/components/personal/LetLeave.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { useAct } from '~/composables/base/use-act'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useSessionStore } from '~/stores/session'
import { useWording } from '~/composables/base/use-wording'

/** One person: what they own and hold up before they leave, where they are signed in, and what is kept of them. */
useHead({ title: 'One person · Rekko' })
const api = useApi()
const wording = useWording()
const route = useRoute()
const who = shallowRef<PersonFound | null>(null)
const page = shallowRef<PersonPage | null>(null)
const told = ref('')
const typed = ref('')
const { busy, trouble, act } = useAct()

async function look(id: string): Promise<void> {
  trouble.value = ''
  try {
    page.value = await api.get('/api/people/{id}/page', { params: { id } })
  } catch (e) {
    page.value = null
    trouble.value = sayError(e)
  }
}
watch(who, (p) => {
  told.value = ''
  typed.value = ''
  if (p !== null) void look(p.id)
})
const asked = typeof route.query.id === 'string' ? route.query.id : ''
onMounted(() => {
  if (asked !== '') void look(asked)
})
const owned = computed(() => {
  const p = page.value
  if (p === null) return []
  const counted: [number, string, string][] = [
    [p.requests, 'request that is not over', 'requests that are not over'],
    [p.drafts, 'draft', 'drafts'],
    [p.orders, 'order that is not over', 'orders that are not over'],
    [p.trays, 'tray', 'trays'],
  ]
  return counted.flatMap(([n, one, many]) => (n === 0 ? [] : [formatCount(n, one, many)]))
})
const heldUp = computed(() => {
  const p = page.value
  if (p === null) return []
  return [
    ...(p.waiting > 0
      ? [`${capital(formatCount(p.waiting, 'request waits', 'requests wait'))} for their decision`]
      : []),
    ...(p.reports.length > 0 ? [`They are the manager of ${listWords(p.reports)}`] : []),
    ...(p.budgetLines.length > 0 ? [`They hold ${listWords(p.budgetLines)}`] : []),
    ...(p.standsIn.length > 0 ? [`They stand in for ${listWords(p.standsIn)}`] : []),
    ...(p.inPolicy ? ['The policy, or its draft, names them'] : []),
    ...(p.jobs.length > 0 ? [`They are at work on ${listWords(p.jobs)}`] : []),
  ]
})
const hasLeft = computed(() => page.value?.leftOn != null && page.value.leftOn < wording.today.value)
const sentence = computed(() => {
  const p = page.value
  if (p === null) return ''
  if (p.isErased) return 'was erased; documents and events stay.'
  if (p.leftOn !== null) return `${hasLeft.value ? 'left on' : 'is here until'} ${wording.day(p.leftOn)}.`
  return `works in ${p.department}.`
})
const holdsNothing = computed(
  () => owned.value.length === 0 && page.value?.budgetLines.length === 0 && page.value.reports.length === 0,
)
const mayErase = computed(() => page.value !== null && !page.value.isErased && hasLeft.value && holdsNothing.value)
const isTyped = computed(() => typed.value.trim() === page.value?.name)
/** Does something to whoever is looked at, and tells what came of it beside how they stand now. */
async function change(work: (p: PersonPage) => Promise<string>): Promise<void> {
  const p = page.value
  if (p === null) return
  told.value = ''
  await act(async () => {
    const said = await work(p)
    await look(p.id)
    told.value = said
  })
}
const session = useSessionStore()
const isSelf = computed(() => page.value?.id === session.me?.id)
/** What was moved is told beside how they stand now. */
async function afterLeaving(said: string): Promise<void> {
  if (page.value !== null) await look(page.value.id)
  told.value = said
}
const signOut = () =>
  change(async (p) => {
    const { sessions, tokens } = await api.remove('/api/people/{id}/sessions', { params: { id: p.id } })
    const ended = [formatCount(sessions, 'session is', 'sessions are'), formatCount(tokens, 'token is', 'tokens are')]
    return `${capital(listWords(ended))} ended.`
  })
function erase(): void {
  if (!isTyped.value) {
    document.getElementById('erase-name')?.focus()
    return
  }
  void change(async (p) => {
    await api.post('/api/people/{id}/erasure', {
      params: { id: p.id },
      body: { name: typed.value },
      key: crypto.randomUUID(),
    })
    typed.value = ''
    return 'Who they were is gone.'
  })
}
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'erase whoever was chosen, once the name is typed' }], (event) => {
  if (!isMainKey(event) || event.repeat || !mayErase.value) return
  event.preventDefault()
  erase()
})
</script>

<template>
  <div>
    <PageNote>for whoever comes and goes</PageNote>
    <SheetPage>
      <h1 v-if="page" class="sentence">
        <b>{{ page.name }}</b> {{ sentence }}
      </h1>
      <h1 v-else class="sentence">Of whom?</h1>
      <PersonPicker v-model="who" class="mt-3 max-w-[360px]" boxed gone label="Of whom" placeholder="Part of a name" />
      <p v-if="trouble && !mayErase" class="notice-red mt-3 max-w-[640px]" role="alert">{{ trouble }}</p>
      <template v-if="page">
        <p class="small mt-3">
          {{ [page.jobTitle, page.department, page.email].filter((t) => t !== '').join(' · ') }}
        </p>
        <h2 class="head mb-1 mt-6">What they own</h2>
        <p v-if="owned.length === 0" class="text-ink2">Nothing that is not over.</p>
        <p v-else>{{ capital(listWords(owned)) }}.</p>
        <h2 class="head mb-1 mt-6">What stands still without them</h2>
        <p v-if="heldUp.length === 0" class="text-ink2">Nothing.</p>
        <ul v-else>
          <li v-for="t in heldUp" :key="t" class="max-w-[70ch] border-t border-rule py-1.5">{{ t }}.</li>
        </ul>
        <LetLeave v-if="!page.isErased && !isSelf" :key="page.id" class="mt-6" :page="page" @left="afterLeaving" />
        <h2 class="head mb-1 mt-6">Where they are signed in</h2>
        <p>
          {{
            page.sessions + page.tokens === 0
              ? 'Nowhere, and no token of theirs holds.'
              : `At ${formatCount(page.sessions, 'place', 'places')}, ` +
                `with ${formatCount(page.tokens, 'token', 'tokens')}.`
          }}
          <button v-if="page.sessions + page.tokens > 0" type="button" class="quiet-link min-h-6" @click="signOut">
            Sign them out everywhere
          </button>
        </p>
        <p v-if="told" class="notice-green mt-3 max-w-[640px]" role="status">{{ told }}</p>
      </template>
      <template v-if="page" #margin>
        <h2 class="head mb-1">What is kept of them</h2>
        <p>
          <a class="quiet-link" :href="`/api/people/${page.id}/data`" download>Take it along as a file</a>, for whoever
          asks what that is. Everybody has their own under Account.
        </p>
        <h2 class="head mb-1 mt-5">Erasing</h2>
        <p class="text-ink2">
          Who has left, and owns and holds nothing any more, can be erased: name, address, how they signed in and what
          they were told. Documents, decisions and events stay, by a name that tells nobody.
        </p>
      </template>
      <template v-if="mayErase" #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <label class="label" for="erase-name">Their name, so that nobody is erased by mistake</label>
        <input id="erase-name" v-model="typed" class="field mb-2.5" autocomplete="off" />
        <MainAction :missing="!isTyped" :busy="busy" keys="Ctrl ⏎" @press="erase"
          >Erase {{ page?.name }}; it cannot be taken back</MainAction
        >
      </template>
    </SheetPage>
  </div>
</template>
