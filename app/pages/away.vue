<script setup lang="ts">
import type { AbsenceView, PersonFound } from '#shared/contract/people'
import StandingIn from '~/components/people/StandingIn.vue'
import BlankChoice from '~/components/base/BlankChoice.vue'
import BlankDay from '~/components/base/BlankDay.vue'
import MainAction from '~/components/base/MainAction.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import HandOverOwned from '~/components/owner/HandOverOwned.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useUndo } from '~/composables/base/use-undo'
import { useWording } from '~/composables/base/use-wording'
import { useSessionStore } from '~/stores/session'

useHead({ title: 'Away · Rekko' })
const api = useApi()
const session = useSessionStore()
const wording = useWording()
const undo = useUndo()
const from = ref<string | null>(null)
const until = ref<string | null>(null)
/** The first day away; a last day before it moves along. */
function beginOn(day: string): void {
  from.value = day
  if (until.value !== null && until.value < day) until.value = day
}
const who = shallowRef<PersonFound | null>(null)
const whose = shallowRef<PersonFound | null>(null)
/** Who decides instead on what comes from a department, or from one below it. */
interface Instead {
  readonly key: number
  departmentId: string
  who: PersonFound | null
}
const instead = ref<Instead[]>([])
let made = 0
async function addInstead(): Promise<void> {
  const departmentId = open.value[0]?.id ?? ''
  instead.value.push({ key: ++made, departmentId, who: null })
  await nextTick()
  document.getElementById(`instead-${made}`)?.focus()
}
const trouble = ref('')
const busy = ref(false)
const forOthers = computed(() => session.me?.rights.includes('set absences of others') ?? false)

const changesOwners = computed(() => session.me?.rights.includes('change owners') ?? false)

const { data, refresh, error } = await useAsyncData('absences', () => api.get('/api/absences'))
const all = computed(() => [...(data.value?.mine ?? []), ...(data.value?.others ?? [])])
/** The departments for which nobody is named by themselves yet. */
const open = computed(() =>
  (data.value?.departments ?? []).filter((d) => !instead.value.some((i) => i.departmentId === d.id)),
)
const choicesFor = (i: Instead) =>
  (data.value?.departments ?? []).filter((d) => d.id === i.departmentId || open.value.includes(d))
const unnamed = computed(() => instead.value.find((i) => i.who === null))
const missing = computed(
  () => (from.value === null ? 1 : 0) + (until.value === null ? 1 : 0) + (unnamed.value === undefined ? 0 : 1),
)
const words = computed(() => {
  if (from.value === null || until.value === null) return 'Say from which day until which'
  if (unnamed.value !== undefined) return 'Say who decides instead for each department'
  const span =
    from.value === until.value
      ? `on ${wording.day(from.value ?? '')}`
      : `from ${wording.day(from.value ?? '')} to ${wording.day(until.value ?? '')}`
  return who.value === null
    ? `Be away ${span}; requests go on to the next manager`
    : `Be away ${span}; ${who.value.name} decides`
})
const nameOf = (departmentId: string) => data.value?.departments.find((d) => d.id === departmentId)?.name ?? ''
async function set(): Promise<void> {
  trouble.value = ''
  const span = { from: from.value, until: until.value }
  if (span.from === null || span.until === null) {
    document.getElementById(span.from === null ? 'away-from' : 'away-until')?.focus()
    return
  }
  if (unnamed.value !== undefined) {
    document.getElementById(`instead-${unnamed.value.key}`)?.focus()
    return
  }
  busy.value = true
  try {
    await api.post('/api/absences', {
      body: {
        personId: whose.value?.id ?? null,
        from: span.from,
        until: span.until,
        substituteId: who.value?.id ?? null,
        byDepartment: instead.value.map((i) => ({ departmentId: i.departmentId, substituteId: i.who?.id ?? '' })),
      },
      key: crypto.randomUUID(),
    })
    from.value = null
    until.value = null
    who.value = null
    whose.value = null
    instead.value = []
    await refresh()
  } catch (e) {
    trouble.value = sayError(e)
  } finally {
    busy.value = false
  }
}
async function end(a: AbsenceView): Promise<void> {
  try {
    await api.remove('/api/absences/{id}', { params: { id: a.id }, version: a.version })
    await refresh()
    undo.show(`${a.personId === session.me?.id ? 'You are' : `${a.name} is`} back.`, 'Away after all', 10, async () => {
      await api.post('/api/absences', {
        body: {
          personId: a.personId,
          from: a.from < wording.today.value ? wording.today.value : a.from,
          until: a.until,
          substituteId: a.substituteId,
          byDepartment: a.byDepartment.map(({ departmentId, substituteId }) => ({ departmentId, substituteId })),
          note: a.note,
        },
      })
      await refresh()
    })
  } catch (e) {
    trouble.value = sayError(e)
  }
}
const sentence = computed(() => {
  const now = data.value?.mine.find((a) => a.from <= wording.today.value)
  if (now !== undefined)
    return (
      `You are away until ` +
      `${wording.day(now.until)}${now.substitute === null ? '.' : `; ${now.substitute} decides meanwhile.`}`
    )
  const next = data.value?.mine[0]
  return next === undefined ? 'You are here, and decide yourself.' : `You are here until ${wording.day(next.from)}.`
})
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'write it down' }], (e) => {
  if (isMainKey(e)) {
    e.preventDefault()
    void set()
  }
})
</script>

<template>
  <div>
    <PageNote>both days count</PageNote>
    <SheetPage>
      <h1 class="sentence">{{ sentence }}</h1>
      <p v-if="error" class="notice-red mt-3">{{ sayError(error) }}</p>
      <div class="mt-6 border-t border-rule pt-5">
        <div class="sentence">
          <template v-if="forOthers">
            <PersonPicker v-model="whose" label="Who is away" placeholder="I" /> {{ whose ? 'is' : 'am' }} </template
          ><template v-else>I am</template> away from
          <BlankDay
            id="away-from"
            :model-value="from"
            label="First day away"
            placeholder="which day"
            :today="wording.today.value"
            @update:model-value="beginOn"
          />
          to
          <BlankDay
            id="away-until"
            v-model="until"
            label="Last day away"
            placeholder="which day"
            :today="from ?? wording.today.value"
          />, and <PersonPicker v-model="who" label="Who decides meanwhile" placeholder="nobody" /> decides meanwhile.
          <template v-for="i in instead" :key="i.key">
            For
            <BlankChoice
              v-model="i.departmentId"
              :choices="choicesFor(i)"
              :label="`For which department ${i.who?.name ?? 'somebody else'} decides`"
              placeholder="a department"
            /><!--
            -->,
            <PersonPicker
              :id="`instead-${i.key}`"
              v-model="i.who"
              :label="`Who decides instead for ${nameOf(i.departmentId)}`"
              placeholder="who"
              needed
            />
            decides instead<button
              type="button"
              class="inline-flex h-6 w-6 items-center justify-center rounded text-[17px] text-ink2 hover:text-ink"
              :aria-label="`Take ${nameOf(i.departmentId)} out`"
              @click="instead = instead.filter((x) => x !== i)"
            >
              ×</button
            >.
          </template>
        </div>
        <button v-if="open.length > 0" type="button" class="quiet-link small mt-2 min-h-6" @click="addInstead">
          Name somebody else for a department
        </button>
      </div>
      <h2 class="head mb-1 mt-8">{{ all.length === 0 ? 'Nothing is written down' : 'Written down' }}</h2>
      <p v-if="all.length === 0" class="max-w-[60ch] text-ink2">
        Days away stand here, from today on. What waits for you then goes to whoever you name, within your own limit,
        and is recorded as theirs for you.
      </p>
      <table v-else class="table">
        <caption class="sr-only">
          Days away
        </caption>
        <thead>
          <tr>
            <th scope="col">Who</th>
            <th scope="col">From</th>
            <th scope="col">To</th>
            <th scope="col">Decides meanwhile</th>
            <th scope="col" class="num">Next</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="a in all" :key="a.id">
            <td class="font-semibold">
              {{ a.personId === session.me?.id ? 'You' : a.name
              }}<span v-if="a.note" class="small block font-normal">{{ a.note }}</span>
            </td>
            <td>{{ wording.day(a.from) }}</td>
            <td>{{ wording.day(a.until) }}</td>
            <td>
              {{ a.substitute ?? 'nobody: the next manager, or the fallback'
              }}<span v-for="s in a.byDepartment" :key="s.departmentId" class="small block"
                >{{ s.substitute }} for {{ s.department }}</span
              >
            </td>
            <td class="num">
              <button type="button" class="quiet-link" :aria-label="`End the days away of ${a.name}`" @click="end(a)">
                {{ a.from <= wording.today.value ? 'Back now' : 'Take out' }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <HandOverOwned v-if="changesOwners" />
      <template #margin>
        <h2 class="head mb-1.5">What happens meanwhile</h2>
        <p class="text-ink2">
          Whoever you name decides in your place, within your limit. What waits for you now is routed again at once, and
          comes back to you when you do.
        </p>
        <p class="mt-3 text-ink2">
          With nobody named, a request climbs to the next manager; any other step goes to whoever decides when nobody
          else can.
        </p>
        <p class="mt-3 text-ink2">Nobody decides what they asked for themselves, also not for somebody else.</p>
        <StandingIn
          v-if="data"
          class="mt-6"
          :covers="data.covers"
          :has-calendar="data.hasCalendar"
          @changed="refresh()"
        />
      </template>
      <template #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <MainAction :missing="missing > 0" :busy="busy" keys="Ctrl ⏎" @press="set">{{ words }}</MainAction>
      </template>
    </SheetPage>
  </div>
</template>
