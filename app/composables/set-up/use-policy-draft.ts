import { saysSame } from '#core/base/entries'
import {
  checkPolicyForm,
  choiceOf,
  mergePolicy,
  policyChanges,
  policyOf,
  type PolicyFacts,
  type PolicyForm,
} from '#core/approval/policy-form'
import { presence } from '#core/people/person'
import type { PolicyView, ZonedMoment } from '#shared/contract/policy'
import { useAct } from '~/composables/base/use-act'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'

/** After the last key for so long, what was written is kept. */
const PAUSE_MS = 700
const copy = (form: PolicyForm): PolicyForm => JSON.parse(JSON.stringify(form)) as PolicyForm

/**
 * The draft of the next version while it is written: kept on the server by itself, where every administrator finds it,
 * and merged with what others write meanwhile. It holds for nobody until somebody else confirms it.
 */
export function usePolicyDraft(first: PolicyView) {
  const api = useApi()
  const { busy, trouble, act } = useAct()
  const view = shallowRef(first)
  /** What was last read or kept, which one's own changes are told apart from. */
  const base = shallowRef(lying(first))
  const form = shallowRef(copy(lying(first)))
  const told = ref('')
  /** Kept, being kept, or not to be kept just now. */
  const kept = ref<'kept' | 'keeping' | 'failed'>('kept')

  const state = computed(() => view.value.draft?.state ?? 'none')
  const version = computed(() => view.value.draft?.version ?? 0)
  const mayWrite = computed(() => view.value.mayWrite && state.value !== 'waiting')
  /** Something is drafted, or being written; else the page says what holds, or will hold last of what is confirmed. */
  const isDraft = computed(() => state.value !== 'none' || !saysSame(form.value, lying(view.value)))
  const changes = computed(() => policyChanges(view.value.form, form.value))
  const policy = computed(() => policyOf('draft', form.value, view.value.grants))
  const facts = computed<PolicyFacts>(() => {
    const v = view.value
    const gone = v.people.filter((p) => presence(p, v.absences, v.today).at === 'gone').map((p) => p.id)
    return {
      currency: v.currency,
      known: {
        department: new Set(v.departments.filter((d) => !d.retired).map((d) => d.id)),
        category: new Set(v.categories.map((c) => c.id)),
        account: new Set(v.accounts.filter((a) => !a.retired).map((a) => a.code)),
        project: new Set(v.projects),
        kind: new Set(v.kinds.map((k) => k.code)),
        person: new Set(v.people.map((p) => p.id)),
        currency: new Set(v.currencies),
        'own field': new Set(v.ownFields.flatMap((f) => f.choices.map((c) => choiceOf(f.id, c)))),
      },
      left: new Set(gone),
    }
  })
  const reasons = computed(() => checkPolicyForm(form.value, facts.value))

  let timer: ReturnType<typeof setTimeout> | undefined
  let keeping: Promise<void> | null = null
  function write(next: PolicyForm): void {
    form.value = next
    if (!mayWrite.value) return
    clearTimeout(timer)
    timer = setTimeout(() => void keep(), PAUSE_MS)
  }

  /** Keeps what is written and not kept yet; one at a time, the newest last. */
  async function keep(): Promise<void> {
    clearTimeout(timer)
    while (keeping !== null) await keeping
    if (!mayWrite.value || saysSame(form.value, base.value)) return
    keeping = keepOnce()
    await keeping
    keeping = null
  }
  async function keepOnce(): Promise<void> {
    kept.value = 'keeping'
    const sent = form.value
    try {
      const answer = await api.put('/api/approval-policy/draft', { version: version.value, body: sent as never })
      base.value = sent
      setDraft(answer.version, 'written', sent)
      kept.value = 'kept'
    } catch (error) {
      if (error instanceof ApiProblem && error.status === 412) {
        kept.value = 'kept'
        await readAgain()
      } else {
        kept.value = 'failed'
        trouble.value = sayError(error)
      }
    }
  }
  function setDraft(at: number, to: 'none' | 'written' | 'waiting', lies: PolicyForm): void {
    const was = view.value.draft
    view.value = {
      ...view.value,
      draft: {
        begunFrom: view.value.last.number,
        changedBy: '',
        changedAt: new Date().toISOString(),
        inForceAt: null,
        askedBy: null,
        askedAt: null,
        isOwn: false,
        mayConfirm: false,
        returned: '',
        ...was,
        form: lies,
        version: at,
        state: to,
      },
    }
  }

  /** Reads what others wrote or decided meanwhile, with what is not kept yet on top of it. */
  async function readAgain(): Promise<void> {
    try {
      const newest = await api.get('/api/approval-policy')
      const theirs = lying(newest)
      const isOther = !saysSame(theirs, base.value)
      const hadOwn = !saysSame(form.value, base.value)
      // What waits for a second person is shown as it waits, and nothing besides.
      const waits = newest.draft?.state === 'waiting'
      form.value = hadOwn && !waits ? mergePolicy(base.value, form.value, theirs) : copy(theirs)
      base.value = theirs
      view.value = newest
      if (hadOwn && waits)
        told.value = 'The draft waits for a second person now; what you wrote in the last moment is not part of it.'
      else if (hadOwn && isOther) {
        told.value = 'Somebody else wrote in the draft meanwhile; yours stands on top of theirs. Look at both.'
        timer = setTimeout(() => void keep(), PAUSE_MS)
      }
    } catch (error) {
      trouble.value = sayError(error)
    }
  }
  /** Follows what happens elsewhere, but not in the middle of one's own. */
  async function follow(): Promise<void> {
    if (busy.value || keeping !== null) return
    await readAgain()
  }

  /**
   * Does something with the draft as it lies there, after what was written is kept, and reads what became of it; true
   * when it was done. What could not be kept, or was merged on the way, is looked at first.
   */
  async function withDraft(work: (version: number) => Promise<unknown>): Promise<boolean> {
    let done = false
    await act(async () => {
      await keep()
      if (mayWrite.value && !saysSame(form.value, base.value)) return
      try {
        await work(version.value)
        done = true
      } finally {
        await readAgain()
      }
    })
    return done
  }
  const ask = (from: ZonedMoment | null) =>
    withDraft((v) => api.post('/api/approval-policy/draft/requests', { version: v, body: { from } }))
  const confirm = () => withDraft((v) => api.post('/api/approval-policy/draft/confirmations', { version: v }))
  const giveBack = (why: string) =>
    withDraft((v) => api.post('/api/approval-policy/draft/returns', { version: v, body: { why } }))
  async function throwAway(): Promise<boolean> {
    clearTimeout(timer)
    while (keeping !== null) await keeping
    const isKept = state.value !== 'none'
    // What was written last goes with it.
    form.value = copy(isKept ? base.value : lying(view.value))
    return !isKept || withDraft((v) => api.remove('/api/approval-policy/draft', { version: v }))
  }
  const callOff = (number: number) =>
    withDraft(() => api.remove('/api/approval-policy/versions/{number}', { params: { number } }))

  if (import.meta.client) {
    const warn = (event: BeforeUnloadEvent) => {
      if (mayWrite.value && !saysSame(form.value, base.value)) event.preventDefault()
    }
    onMounted(() => {
      window.addEventListener('beforeunload', warn)
    })
    onBeforeUnmount(() => {
      window.removeEventListener('beforeunload', warn)
      void keep()
    })
  }
  return {
    ...{ view, form, state, isDraft, mayWrite, changes, policy, reasons, kept, busy, trouble, told },
    ...{ write, follow, ask, confirm, giveBack, throwAway, callOff },
  }
}

/** What lies in the draft; without one, what it would begin from. */
function lying(view: PolicyView): PolicyForm {
  return view.draft === null || view.draft.state === 'none' ? view.last.form : view.draft.form
}
