<script setup lang="ts">
import { formatCount } from '#shared/words/format'
import { sayAlike } from '#shared/words/supplier'
import KeyOf from '~/components/base/KeyOf.vue'
import MainAction from '~/components/base/MainAction.vue'
import PageNote from '~/components/base/PageNote.vue'
import SheetPage from '~/components/base/SheetPage.vue'
import { sayError, useApi } from '~/composables/base/use-api'
import { isMainKey, usePlaceKeys } from '~/composables/base/use-keys'
import { useWording } from '~/composables/base/use-wording'
import { useSessionStore } from '~/stores/session'

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
const STANDING: Record<string, string> = {
  active: 'can be ordered from',
  'on hold': 'is on hold and cannot be asked for',
  proposed: 'is proposed; finance has to approve it before anything is ordered',
  refused: 'was refused',
}
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
  if (isMainKey(event) && supplier.value?.mayDecide) {
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
        {{ STANDING[supplier.standing] ?? supplier.standing }}.
      </h1>
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
        <dt>Currency</dt>
        <dd>{{ supplier.currency }}</dd>
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
      <template #margin>
        <h2 class="head mb-1">What waits for it</h2>
        <p>
          {{
            supplier.waitingRequests === 0
              ? 'No request that is on its way names it.'
              : `${formatCount(supplier.waitingRequests, 'request', 'requests')} on the way ` +
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
