<script setup lang="ts">
import { NEW_SUPPLIER_POLICIES, without, type FormPart, type NewSupplierPolicy } from '#core/requisition/form'
import { capital, formatCount } from '#shared/words/format'
import { NEW_SUPPLIER_WORDS, sayChange, sayFormReason } from '#shared/words/request-form'
import BlankChoice from '~/components/base/BlankChoice.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import FieldSentence from '~/components/set-up/FieldSentence.vue'
import KindSentence from '~/components/set-up/KindSentence.vue'
import RuleSentence from '~/components/set-up/RuleSentence.vue'
import TryForm from '~/components/set-up/TryForm.vue'
import { useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useUndo } from '~/composables/base/use-undo'
import { useWording } from '~/composables/base/use-wording'
import { useForm } from '~/composables/set-up/use-form'
import { useReplay } from '~/composables/set-up/use-replay'

useHead({ title: 'What requests ask for · Rekko' })
const api = useApi()
const undo = useUndo()
const wording = useWording()
const { data: view, error } = await useAsyncData('request-form', () => api.get('/api/request-form'))
if (error.value || !view.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
const f = useForm(view.value)
const { form, inForce } = f

const sentence = computed(
  () =>
    `Staff raise ${formatCount(form.kinds.length, 'kind', 'kinds')} of requests. ` +
    `${capital(formatCount(form.ownFields.length, 'own field', 'own fields'))} and ` +
    `${formatCount(form.rules.length, 'rule', 'rules')} say what else is asked for.`,
)
const kinds = computed(() => form.kinds.map((k) => ({ id: k.code, name: k.name })))
const partsWays = computed(() => [
  { id: '', name: 'waits until somebody raises it' },
  ...form.kinds.map((k) => ({ id: k.code, name: `is asked for at once, as ${k.name}` })),
])
function setPartsKind(code: string): void {
  for (const k of form.kinds) k.raisesParts = k.code === code
}
const policies = NEW_SUPPLIER_POLICIES.map((id) => ({ id, name: NEW_SUPPLIER_WORDS[id] }))
const entryId = (part: FormPart, at: number) => `${part}-${at}`
const isNewField = (id: string) => !inForce.value.form.ownFields.some((x) => x.id === id)

const words = computed(() => {
  if (f.reasons.value.length > 0)
    return `${capital(formatCount(f.reasons.value.length, 'thing', 'things'))} to put right first`
  return f.changes.value.length === 0
    ? 'Change a sentence; nothing holds until you say so here'
    : `Put ${formatCount(f.changes.value.length, 'change', 'changes')} in force, for all that is sent from now on`
})

async function add(part: FormPart): Promise<void> {
  const nothing = { kinds: [], departmentIds: [], categoryIds: [] }
  if (part === 'kinds') form.kinds.push({ code: crypto.randomUUID(), name: '', help: '', series: 'R' })
  else if (part === 'ownFields')
    form.ownFields.push({
      id: crypto.randomUUID(),
      name: '',
      help: '',
      on: 'requisition',
      type: 'text',
      required: false,
      choices: [],
      ...nothing,
    })
  else
    form.rules.push({
      id: crypto.randomUUID(),
      name: '',
      when: { from: null, withoutAgreement: false, ...nothing },
      asks: { what: 'quotes', count: 2 },
    })
  await nextTick()
  document.getElementById(`${entryId(part, form[part].length - 1)}-name`)?.focus()
}
async function takeAway(part: FormPart, at: number): Promise<void> {
  const before = JSON.parse(JSON.stringify(form)) as typeof form
  const name = form[part][at]?.name || 'It'
  f.set(without(form, part, at))
  undo.show(`“${name}” is taken away, once you put that in force.`, 'Put it back', 10, () => {
    f.set(before)
  })
  await nextTick()
  document.getElementById(`add-${part}`)?.focus()
}
async function moveUp(part: FormPart, at: number): Promise<void> {
  const list = form[part] as unknown[]
  list.splice(at - 1, 0, ...list.splice(at, 1))
  await nextTick()
  document.getElementById(at - 1 === 0 ? `${entryId(part, 0)}-name` : `${entryId(part, at - 1)}-up`)?.focus()
}
function throwAway(): void {
  const before = f.throwAway()
  undo.show('Your changes are thrown away.', 'Bring them back', 10, () => {
    f.set(before)
  })
}
async function putInForce(): Promise<void> {
  const [wrong] = f.reasons.value
  if (wrong !== undefined) {
    lead(wrong.part, wrong.at)
    return
  }
  if (f.changes.value.length === 0 || f.busy.value) return
  const count = f.changes.value.length
  const before = inForce.value.form
  if (await f.putInForce())
    undo.show(
      `${capital(formatCount(count, 'change holds', 'changes hold'))} from now on.`,
      'Take that back',
      10,
      async () => {
        f.set(before)
        await f.putInForce()
      },
    )
}
function lead(part: FormPart, at: number | null): void {
  const it = document.getElementById(at === null ? `add-${part}` : `${entryId(part, at)}-name`)
  it?.scrollIntoView({ block: 'center' })
  it?.focus()
}

const { replay, say: sayReplay } = useReplay(
  () => form.rules,
  () => f.reasons.value.every((r) => r.part !== 'rules' || r.code === 'name-missing'),
)
const replayed = computed(() =>
  replay.value?.since == null
    ? ''
    : `The figures under rules count the ${replay.value.sent} requests sent since ${wording.day(replay.value.since)}.`,
)

usePlaceKeys([{ keys: 'Ctrl Enter', does: 'put the changes in force' }], (event) => {
  if (isMainKey(event)) {
    event.preventDefault()
    void putInForce()
  }
})
const PARTS: readonly { part: FormPart; title: string; add: string; empty: string }[] = [
  {
    part: 'kinds',
    title: 'Kinds of requests',
    add: 'a kind',
    empty: 'There has to be at least one kind; add it here.',
  },
  {
    part: 'ownFields',
    title: 'Own fields',
    add: 'an own field',
    empty:
      'Nothing is asked for besides what every request says. An own field asks for one thing more: a text, a ' +
      'number, a day, a choice, a person or a job.',
  },
  {
    part: 'rules',
    title: 'What some requests need',
    add: 'a rule',
    empty: 'No request needs quotes, files, a justification or something read. A rule says which do, and why.',
  },
]
</script>

<template>
  <div>
    <PageNote>{{ f.changes.value.length === 0 ? 'all of this is in force' : 'changed, not in force yet' }}</PageNote>
    <SheetPage>
      <h1 class="sentence">{{ sentence }}</h1>
      <p v-if="f.told.value" class="notice-amber mt-3" role="status">{{ f.told.value }}</p>
      <section v-for="p in PARTS" :key="p.part" class="mt-7" :aria-label="p.title">
        <h2 class="head border-b border-ink pb-1.5">{{ p.title }}</h2>
        <p v-if="form[p.part].length === 0" class="max-w-[64ch] py-3 text-ink2">{{ p.empty }}</p>
        <ol>
          <li
            v-for="(entry, at) in form[p.part]"
            :key="'code' in entry ? entry.code : entry.id"
            :class="[
              'grid grid-cols-[26px_minmax(0,1fr)_auto] gap-x-3 border-b border-rule py-3',
              'max-[700px]:grid-cols-[minmax(0,1fr)]',
            ]"
          >
            <span class="pt-0.5 font-serif text-[18px] leading-7 text-ink3 max-[700px]:hidden" aria-hidden="true">{{
              at + 1
            }}</span>
            <div class="min-w-0">
              <KindSentence
                v-if="p.part === 'kinds' && form.kinds[at]"
                :id="entryId(p.part, at)"
                v-model="form.kinds[at]"
                :first="at === 0"
                :sent="inForce.sent[form.kinds[at].code] ?? 0"
              />
              <FieldSentence
                v-else-if="p.part === 'ownFields' && form.ownFields[at]"
                :id="entryId(p.part, at)"
                v-model="form.ownFields[at]"
                :is-new="isNewField(form.ownFields[at].id)"
                :filled="inForce.filled[form.ownFields[at].id] ?? 0"
                :kinds="kinds"
                :departments="inForce.departments"
                :categories="inForce.categories"
              />
              <RuleSentence
                v-else-if="form.rules[at]"
                :id="entryId(p.part, at)"
                v-model="form.rules[at]"
                :currency="inForce.currency"
                :kinds="kinds"
                :departments="inForce.departments"
                :categories="inForce.categories"
                :replay="sayReplay(at)"
              />
              <p
                v-for="r in f.reasons.value.filter((x) => x.part === p.part && x.at === at)"
                :key="r.code"
                class="small text-amber-ink!"
              >
                {{ sayFormReason(r, form) }}
              </p>
            </div>
            <span class="flex flex-col items-end gap-1 pt-1 max-[700px]:flex-row max-[700px]:gap-4">
              <button
                type="button"
                class="small quiet-link min-h-6"
                :aria-label="`Take ${entry.name || 'this'} away`"
                @click="takeAway(p.part, at)"
              >
                take away
              </button>
              <button
                v-if="at > 0"
                :id="`${entryId(p.part, at)}-up`"
                type="button"
                class="small quiet-link min-h-6"
                :aria-label="`Move ${entry.name || 'this'} up`"
                @click="moveUp(p.part, at)"
              >
                move up
              </button>
            </span>
          </li>
        </ol>
        <button :id="`add-${p.part}`" type="button" class="quiet-link mt-2.5 text-ink2" @click="add(p.part)">
          add {{ p.add }}
        </button>
      </section>
      <section class="mt-7" aria-label="New suppliers">
        <h2 class="head border-b border-ink pb-1.5">New suppliers</h2>
        <div class="sentence-small py-3">
          A supplier that is not there yet
          <BlankChoice
            :model-value="form.newSuppliers"
            :choices="policies"
            label="New suppliers"
            placeholder=""
            @update:model-value="form.newSuppliers = $event as NewSupplierPolicy"
          />.
        </div>
      </section>
      <section class="mt-7" aria-label="Parts of jobs">
        <h2 class="head border-b border-ink pb-1.5">Parts of jobs</h2>
        <div class="sentence-small py-3">
          What people add to a job
          <BlankChoice
            :model-value="form.kinds.find((k) => k.raisesParts)?.code ?? ''"
            :choices="partsWays"
            label="What becomes of parts that are added to a job"
            placeholder="waits until somebody raises it"
            @update:model-value="setPartsKind"
          />.
        </div>
      </section>
      <template #margin>
        <TryForm
          :form="form"
          :currency="inForce.currency"
          :departments="inForce.departments"
          :categories="inForce.categories"
        />
        <section v-if="f.changes.value.length > 0" class="mt-6" aria-label="What you change">
          <h2 class="head mb-1">What you change</h2>
          <ul>
            <li v-for="c in f.changes.value" :key="JSON.stringify(c)" class="border-t border-rule py-1.5">
              {{ sayChange(c) }}
            </li>
          </ul>
        </section>
        <p v-if="replayed" class="small mt-6">{{ replayed }}</p>
      </template>
      <template #action>
        <p v-if="f.trouble.value" class="notice-red mb-2.5" role="alert">{{ f.trouble.value }}</p>
        <ul v-if="f.reasons.value.length > 0" class="mb-2.5" aria-label="What has to be put right">
          <li v-for="r in f.reasons.value" :key="`${r.part} ${r.at} ${r.code}`">
            <button type="button" class="quiet-link text-left text-amber-ink" @click="lead(r.part, r.at)">
              {{ sayFormReason(r, form) }}
            </button>
          </li>
        </ul>
        <MainAction
          :missing="f.reasons.value.length > 0 || f.changes.value.length === 0"
          :busy="f.busy.value"
          keys="Ctrl ⏎"
          @press="putInForce"
          >{{ words }}</MainAction
        >
        <button v-if="f.changes.value.length > 0" type="button" class="action mt-2 w-full" @click="throwAway">
          Throw the changes away
        </button>
      </template>
    </SheetPage>
  </div>
</template>
