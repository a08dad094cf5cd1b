<script setup lang="ts">
import type { PersonPage } from '#shared/contract/personal'
import type { PersonFound } from '#shared/contract/people'
import { formatCount, listWords } from '#shared/words/format'
import BlankDay from '~/components/base/BlankDay.vue'
import PersonPicker from '~/components/base/PersonPicker.vue'
import { useAct } from '~/composables/base/use-act'
import { useApi } from '~/composables/base/use-api'
import { useWording } from '~/composables/base/use-wording'

/** Somebody leaves: their last day, and to whom everything goes that is theirs, in one action. */
const props = defineProps<{ page: PersonPage }>()
const emit = defineEmits<{ left: [said: string] }>()
const api = useApi()
const wording = useWording()
const lastDay = ref<string | null>(props.page.leftOn)
const requestsTo = shallowRef<PersonFound | null>(null)
const ordersTo = shallowRef<PersonFound | null>(null)
const decisionsTo = shallowRef<PersonFound | null>(null)
const reportsTo = shallowRef<PersonFound | null>(null)
const { busy, trouble, act } = useAct()

const hasRequests = computed(() => props.page.requests + props.page.drafts > 0)
const hasOrders = computed(() => props.page.orders + props.page.trays > 0)
const decides = computed(() => props.page.waiting + props.page.standsIn.length > 0 || props.page.inPolicy)
const manages = computed(() => props.page.reports.length > 0)
/** What is still open in the sentence. */
const open = computed(() => [
  ...(lastDay.value === null ? [{ id: 'leaves-on', what: 'the last day' }] : []),
  ...(hasRequests.value && requestsTo.value === null ? [{ id: 'gets-requests', what: 'who gets the requests' }] : []),
  ...(hasOrders.value && ordersTo.value === null ? [{ id: 'gets-orders', what: 'which buyer gets the orders' }] : []),
  ...(decides.value && decisionsTo.value === null ? [{ id: 'decides', what: 'who decides instead' }] : []),
  ...(manages.value && reportsTo.value === null ? [{ id: 'manages', what: 'who manages their people' }] : []),
])
/** What they decide, stand in for and are named by. */
const deciding = computed(() =>
  listWords([
    ...(props.page.waiting > 0 ? ['decides what waits for them'] : []),
    ...(props.page.standsIn.length > 0 ? [`stands in for ${listWords(props.page.standsIn)}`] : []),
    ...(props.page.inPolicy ? ['has their places in the policy, as a draft that somebody else confirms'] : []),
  ]),
)
const words = computed(() =>
  open.value.length > 0
    ? `Say ${listWords(open.value.map((o) => o.what))}`
    : `Let ${props.page.name} leave, with ${wording.day(lastDay.value ?? '')} as the last day`,
)
const POLICY = {
  none: '',
  drafted: ' The draft of the policy names somebody else in their places; ask for its confirmation.',
  waits: ' The policy waits for a second person: change their places in it afterwards.',
}
async function letLeave(): Promise<void> {
  const day = lastDay.value
  if (day === null || open.value.length > 0) {
    document.getElementById(open.value[0]?.id ?? '')?.focus()
    return
  }
  await act(async () => {
    const left = await api.post('/api/people/{id}/leaving', {
      params: { id: props.page.id },
      body: {
        lastDay: day,
        requestsTo: requestsTo.value?.id ?? null,
        ordersTo: ordersTo.value?.id ?? null,
        decisionsTo: decisionsTo.value?.id ?? null,
        reportsTo: reportsTo.value?.id ?? null,
      },
      key: crypto.randomUUID(),
    })
    const moved = left.requests + left.orders + left.decisions + left.standIns + left.reports
    emit(
      'left',
      `${formatCount(moved, 'thing is', 'things are')} with others now` +
        `${left.kept > 0 ? `; ${formatCount(left.kept, 'stays', 'stay')}, as whoever was to get it may not` : ''}.` +
        POLICY[left.policy],
    )
  })
}
</script>

<template>
  <section aria-labelledby="let-leave">
    <h2 id="let-leave" class="head mb-1">Leaving</h2>
    <div class="leading-8">
      The last day of {{ page.name }} is
      <BlankDay
        id="leaves-on"
        v-model="lastDay"
        label="The last day"
        placeholder="which day"
        :today="wording.today.value"
      /><template v-if="hasRequests"
        >; their requests go to
        <PersonPicker
          id="gets-requests"
          v-model="requestsTo"
          needed
          label="Who gets the requests"
          placeholder="whom" /></template
      ><template v-if="hasOrders"
        >; their orders go to
        <PersonPicker
          id="gets-orders"
          v-model="ordersTo"
          needed
          label="Which buyer gets the orders"
          placeholder="which buyer" /></template
      ><template v-if="decides"
        >;
        <PersonPicker id="decides" v-model="decisionsTo" needed label="Who decides instead" placeholder="who" />
        {{ deciding }}</template
      ><template v-if="manages"
        >;
        <PersonPicker id="manages" v-model="reportsTo" needed label="Who manages their people" placeholder="who" />
        manages {{ listWords(page.reports) }}</template
      >.
    </div>
    <p v-if="page.budgetLines.length > 0" class="mt-1.5 text-ink2">
      {{ listWords(page.budgetLines) }} {{ page.budgetLines.length === 1 ? 'has' : 'have' }} no holder then: finance
      gives {{ page.budgetLines.length === 1 ? 'it' : 'them' }} to others, in the list of budget lines.
    </p>
    <p v-if="trouble" class="notice-red mt-2.5" role="alert">{{ trouble }}</p>
    <button type="button" class="action mt-3" :disabled="busy" @click="letLeave">{{ words }}</button>
  </section>
</template>
