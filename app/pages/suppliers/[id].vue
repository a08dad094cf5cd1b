<script setup lang="ts">
import type { Standing } from '#core/supplier/record'
import { capital, formatCount } from '#shared/words/format'
import { sayAlike, sayArrives, sayReach, STANDING_WORDS } from '#shared/words/supplier'
import KeyOf from '~/components/base/KeyOf.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import BankDetails from '~/components/supplier/BankDetails.vue'
import BoughtOf from '~/components/supplier/BoughtOf.vue'
import PapersList from '~/components/supplier/PapersList.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

const RecordForm = defineAsyncComponent(() => import('~/components/supplier/RecordForm.vue'))
const StandingForm = defineAsyncComponent(() => import('~/components/supplier/StandingForm.vue'))

definePageMeta({ key: (route) => route.path })
const api = useApi()
const route = useRoute()
const wording = useWording()
const session = useSessionStore()
const id = String(route.params.id)
const {
  data: supplier,
  error,
  refresh,
} = await useAsyncData(`supplier-${id}`, () => api.get('/api/suppliers/{id}', { params: { id } }))
if (error.value || !supplier.value) throw createError({ statusCode: 404, fatal: true, message: 'not found' })
useHead({ title: () => `${supplier.value?.name ?? 'Supplier'} · Rekko` })
const reason = ref('')
const busy = ref(false)
const trouble = ref('')
/** One writes why it is refused: the key of the main action refuses then. */
const refusing = ref(false)
const seesOrders = session.me?.rights.includes('see orders') === true
const { data: bought } = await useAsyncData(`bought-${id}`, () =>
  seesOrders ? api.get('/api/suppliers/{id}/bought', { params: { id } }) : Promise.resolve(null),
)
useLive((changes) => {
  if (changes.some((c) => c.id === id || c.kind === 'again') && !busy.value) void refresh()
})
const keepsList = session.me?.rights.includes('approve suppliers') === true
const writing = ref(false)
const turning = ref<Standing | null>(null)
const told = ref('')
const TURNS: Partial<Record<Standing, string>> = {
  'on hold': 'Put it on hold',
  blocked: 'Block it',
  active: 'Let it be ordered from',
}
async function kept(sentence: string): Promise<void> {
  writing.value = false
  turning.value = null
  told.value = sentence
  await refresh()
}
const terms = computed(() => {
  const s = supplier.value
  if (!s) return ''
  const days = formatCount(s.termsDays, 'day', 'days')
  return s.termsKind === 'net' ? `${days} net` : `${days} from the end of the month`
})
const freight = computed(() => {
  const s = supplier.value
  if (!s || s.freight === null) return ''
  const free = s.freightFreeFrom === null ? '' : `, nothing from ${wording.kept(s.freightFreeFrom, s.currency)}`
  return `${s.currency} ${wording.kept(s.freight, s.currency)}${free}`
})
async function decide(accept: boolean): Promise<void> {
  if (busy.value) return
  busy.value = true
  trouble.value = ''
  try {
    await api.post('/api/suppliers/{id}/decision', {
      params: { id },
      body: { accept, reason: reason.value },
      key: crypto.randomUUID(),
    })
  } catch (e) {
    trouble.value = sayError(e)
  }
  await refresh()
  busy.value = false
  void session.load()
}
usePlaceKeys([{ keys: 'Ctrl Enter', does: 'approve a proposed supplier; in the box: refuse it' }], (event) => {
  if (isMainKey(event) && supplier.value?.mayDecide && !writing.value && turning.value === null) {
    event.preventDefault()
    void decide(!refusing.value)
  }
})
</script>

<template>
  <div v-if="supplier">
    <PageNote>{{ supplier.number }}</PageNote>
    <SheetPage>
      <h1 class="sentence">
        <b>{{ supplier.name }}</b><template v-if="supplier.town"> in {{ supplier.town }}</template>
        {{ STANDING_WORDS[supplier.standing]
        }}<template v-if="supplier.standingUntil"> until {{ wording.day(supplier.standingUntil) }}</template
        >.
      </h1>
      <p v-if="supplier.mergedInto" class="notice-amber mt-3">
        It is
        <NuxtLink class="quiet-link font-semibold" :to="`/suppliers/${supplier.mergedInto.id}`">{{
          supplier.mergedInto.name
        }}</NuxtLink>: what named it names that one now.
      </p>
      <p v-if="supplier.standingReason" class="notice-amber mt-3">
        {{ supplier.standingReason }}
        <span v-if="supplier.standingSince" class="small block text-amber-ink!"
          >since {{ wording.since(supplier.standingSince) }}</span
        >
      </p>
      <p v-if="supplier.warning" class="notice-amber mt-3">{{ supplier.warning }}</p>
      <dl
        :class="[
          'mt-5 grid max-w-[640px] grid-cols-[140px_minmax(0,1fr)] gap-x-4 [&>*]:border-b',
          '[&>*]:border-rule [&>*]:py-2 [&>dt]:text-ink2',
        ]"
      >
        <dt>Address</dt>
        <dd>{{ supplier.address || 'not known' }}</dd>
        <dt>E-mail for orders</dt>
        <dd>{{ supplier.email ?? 'not known' }}</dd>
        <dt>Telephone</dt>
        <dd>{{ supplier.telephone || 'not known' }}</dd>
        <template v-for="c in supplier.contacts" :key="`${c.name} ${c.about} ${c.email}`"
          ><dt>{{ c.about === 'anything' ? 'Contact' : `For ${c.about}` }}</dt>
          <dd>
            {{ [c.name, c.email, c.telephone].filter((t) => t !== '').join(' · ')
            }}<span v-if="c.address" class="small block">{{ c.address }}</span>
          </dd></template
        >
        <dt>Terms</dt>
        <dd>
          {{ terms }}, in {{ supplier.currency }}; here in
          {{ formatCount(supplier.leadDays, 'business day', 'business days') }}
        </dd>
        <template v-if="freight"
          ><dt>Freight</dt>
          <dd>{{ freight }}</dd></template
        >
        <template v-if="supplier.language !== 'English'"
          ><dt>Orders</dt>
          <dd>are written in {{ supplier.language }}</dd></template
        >
        <template v-if="supplier.minimumOrder !== null"
          ><dt>Minimum order</dt>
          <dd>
            {{ supplier.currency }} {{ wording.kept(supplier.minimumOrder, supplier.currency) }} of goods
          </dd></template
        >
        <template v-if="supplier.categories.length > 0"
          ><dt>In the catalogue</dt>
          <dd>
            {{ supplier.categories.map((c) => `${c.name} ${c.items}`).join(', ') }}
          </dd></template
        >
        <template v-if="supplier.datedWarning && !supplier.warning && supplier.warningFrom"
          ><dt>A warning to come</dt>
          <dd>{{ supplier.datedWarning }}, from {{ wording.day(supplier.warningFrom) }}</dd></template
        >
        <template v-if="supplier.taxNumber"
          ><dt>Tax number</dt>
          <dd>{{ supplier.taxNumber }}</dd></template
        >
        <template v-if="supplier.proposedBy"
          ><dt>Proposed by</dt>
          <dd>
            {{ supplier.proposedBy
            }}<template v-if="supplier.proposedAt">, {{ wording.moment(supplier.proposedAt) }}</template>
          </dd></template
        >
        <template v-if="supplier.note"
          ><dt>Why this one</dt>
          <dd>{{ supplier.note }}</dd></template
        >
        <template v-if="supplier.standing === 'proposed'"
          ><dt>Tax form</dt>
          <dd>
            <a v-if="supplier.hasTaxForm" class="quiet-link" :href="`/api/suppliers/${id}/tax-form`">keep a copy</a
            ><template v-else>not given</template>
          </dd></template
        >
      </dl>
      <section v-if="supplier.alike.length > 0" class="notice-amber mt-5 max-w-[640px]">
        <h2 class="head mb-1">It may be there already</h2>
        <p v-for="a in supplier.alike" :key="a.id">
          <NuxtLink class="quiet-link font-semibold" :to="`/suppliers/${a.id}`">{{ a.name }}</NuxtLink>, {{ a.number }},
          {{ a.town }}: {{ sayAlike(a.why) }}
        </p>
      </section>
      <template v-if="supplier.mayKeep">
        <p class="mt-3 flex flex-wrap gap-x-5">
          <button type="button" class="quiet-link min-h-6" @click="writing = true">Contacts and warning</button>
          <NuxtLink
            v-if="keepsList"
            class="quiet-link inline-flex min-h-6 items-center"
            :to="`/set-up/lists/suppliers?open=${supplier.number}`"
            >Name, address, terms</NuxtLink
          >
          <button
            v-for="t in supplier.nextStandings"
            :key="t"
            type="button"
            class="quiet-link min-h-6"
            @click="turning = t"
          >
            {{ TURNS[t] }}
          </button>
        </p>
        <p v-if="told" class="mt-2" role="status">{{ told }}</p>
        <BankDetails :supplier="supplier" @changed="refresh()" />
        <PapersList :supplier="supplier" @changed="refresh()" />
      </template>
      <BoughtOf v-if="bought && supplier.standing !== 'proposed'" :bought="bought" />
      <RecordForm v-if="writing" :supplier="supplier" @kept="kept('It is kept.')" @close="writing = false" />
      <StandingForm
        v-if="turning"
        :supplier="supplier"
        :to="turning"
        @kept="kept('It stands so from now on.')"
        @close="turning = null"
      />
      <template #margin>
        <template v-if="supplier.reach.length > 0">
          <h2 class="head mb-1">Is an order going to arrive?</h2>
          <p>{{ sayArrives(supplier.reach) }}</p>
          <ul class="mb-5 mt-1.5">
            <li
              v-for="r in supplier.reach"
              :key="r.part"
              class="border-t border-rule py-1.5"
              :class="r.is === 'missing' ? 'text-red' : r.is === 'look' ? 'text-amber-ink' : 'text-ink2'"
            >
              {{ r.is === 'there' ? '✓' : r.is === 'look' ? '?' : '✗' }} {{ sayReach(r) }}
            </li>
          </ul>
        </template>
        <h2 class="head mb-1">What waits for it</h2>
        <p>
          {{
            supplier.waitingRequests === 0
              ? 'No request that is on its way names it.'
              : `${capital(formatCount(supplier.waitingRequests, 'request', 'requests'))} on the way ` +
                `${supplier.waitingRequests === 1 ? 'names' : 'name'} it.`
          }}
        </p>
      </template>
      <template v-if="supplier.mayDecide || supplier.standing === 'proposed'" #action>
        <p v-if="trouble" class="notice-red mb-2.5" role="alert">{{ trouble }}</p>
        <template v-if="supplier.mayDecide">
          <MainAction :busy="busy" :keys="refusing ? undefined : 'Ctrl ⏎'" @press="decide(true)"
            >Approve: it can be ordered from</MainAction
          >
          <label class="sr-only" for="reason">Why it is refused</label
          ><textarea
            id="reason"
            v-model="reason"
            class="field mt-2.5"
            rows="1"
            maxlength="1000"
            placeholder="Why, if you refuse it"
            @focus="refusing = true"
            @blur="refusing = false"
          />
          <button type="button" class="action action-danger mt-2 w-full" @click="decide(false)">
            {{ supplier.proposedBy ? `Refuse it, and tell ${supplier.proposedBy} why` : 'Refuse it' }}
            <KeyOf v-if="refusing" />
          </button>
        </template>
        <p v-else class="text-ink2">
          Finance decides on it{{ supplier.proposedBy ? ', never whoever proposed it' : '' }}.
        </p>
      </template>
    </SheetPage>
  </div>
</template>
