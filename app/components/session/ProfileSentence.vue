<script setup lang="ts">
import { LOCALE_NAMES, LOCALES, type Locale } from '#core/people/locale'
import { MAIL_WAYS, THEMES } from '#core/people/person'
import type { Profile } from '#shared/contract/account'
import { waysOf } from '#shared/words/ways'
import BlankChoice from '~/components/base/BlankChoice.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'
import { useSessionStore } from '~/stores/session'

/** How one reads, how pages look, and which mails come: a sentence that is kept as it changes. */
const props = defineProps<{ profile: Profile }>()
const api = useApi()
const session = useSessionStore()
const wording = useWording()
const said = reactive<Profile>({ ...props.profile })
const trouble = ref('')
const told = ref('')

const isListed = (id: string): id is Locale => id in LOCALES
/** One that is none of ours, and was chosen over the API, goes on standing there. */
const chosen = isListed(said.locale) ? [] : [said.locale]
const languages = [...LOCALE_NAMES, ...chosen].map((id) => {
  const ways = waysOf(id)
  return {
    id,
    name: isListed(id) ? LOCALES[id] : id,
    note: `${ways.decimal('1234.50')}, ${ways.monthFirst ? '12/31' : '31/12'}`,
  }
})
const THEME_WORDS = { system: 'as the machine is set', light: 'light', dark: 'dark' }
const themes = THEMES.map((id) => ({ id, name: THEME_WORDS[id] }))
const MAIL_WORDS = { 'at once': 'at once', daily: 'in one letter a day', never: 'not by mail' }
const mails = MAIL_WAYS.map((id) => ({ id, name: MAIL_WORDS[id] }))

async function set<K extends keyof Profile>(key: K, value: string): Promise<void> {
  const before = said[key]
  said[key] = value as Profile[K]
  trouble.value = ''
  try {
    await api.put('/api/profile', { body: { ...said } })
    told.value = key === 'locale' ? 'Kept; numbers are written that way from the next page on.' : 'Kept.'
    await session.load()
  } catch (e) {
    said[key] = before
    trouble.value = sayError(e)
  }
}
</script>

<template>
  <div>
    <div class="sentence">
      I read numbers and days as in
      <BlankChoice
        :model-value="said.locale"
        :choices="languages"
        label="Numbers and days as in"
        placeholder="which country"
        @update:model-value="set('locale', $event)"
      />, and pages are
      <BlankChoice
        :model-value="said.theme"
        :choices="themes"
        label="How pages look"
        placeholder="how"
        @update:model-value="set('theme', $event)"
      />. I hear of what waits for me
      <BlankChoice
        :model-value="said.mailsWaiting"
        :choices="mails"
        label="Mails of what waits for me"
        placeholder="how"
        @update:model-value="set('mailsWaiting', $event)"
      />, and of what became of mine
      <BlankChoice
        :model-value="said.mailsNews"
        :choices="mails"
        label="Mails of what became of mine"
        placeholder="how"
        @update:model-value="set('mailsNews', $event)"
      />.
    </div>
    <p class="small mt-1" role="status">
      {{ told || `Today is ${wording.day(wording.today.value)}; letters of a day come from seven in the morning.` }}
    </p>
    <p v-if="trouble" class="notice-red mt-2" role="alert">{{ trouble }}</p>
  </div>
</template>
