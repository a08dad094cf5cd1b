import {
  changesOf,
  checkForm,
  mergeForm,
  type FormFacts,
  type FormReason,
  type RequestForm,
} from '#core/requisition/form'
import type { OwnField } from '#core/requisition/own-field'
import type { RequestKind, RequestRule } from '#core/requisition/rules'
import type { RequestFormView } from '#shared/contract/request-form'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'
import { useLive } from '~/composables/live/use-live'
import { useSessionStore } from '~/stores/session'

/** A form as it is written: the core's, with everything to be changed in place. */
type Mutable<T> = { -readonly [K in keyof T]: T[K] }
export type EditableField = Mutable<OwnField>
export type EditableRule = Omit<Mutable<RequestRule>, 'when'> & { when: Mutable<RequestRule['when']> }
export interface EditableForm {
  newSuppliers: RequestForm['newSuppliers']
  kinds: Mutable<RequestKind>[]
  ownFields: EditableField[]
  rules: EditableRule[]
}

/** It crosses to the server as JSON anyway, and a proxy cannot be cloned otherwise. */
const copy = (form: RequestForm): EditableForm => JSON.parse(JSON.stringify(form)) as EditableForm

/**
 * What is asked for with requisitions while an administrator changes it: a copy that holds for nobody
 * until it is put in force, kept in this browser meanwhile, and carried over to what others put in force.
 */
export function useForm(view: RequestFormView) {
  const api = useApi()
  const session = useSessionStore()
  const inForce = shallowRef(view)
  const form = reactive(copy(view.form))
  const busy = ref(false)
  const trouble = ref('')
  const told = ref('')
  const place = `rekko set-up requests ${session.me?.id ?? ''}`

  const facts = computed<FormFacts>(() => ({
    baseCurrency: inForce.value.currency,
    departmentIds: new Set(inForce.value.departments.map((d) => d.id)),
    categoryIds: new Set(inForce.value.categories.map((c) => c.id)),
    everFields: new Map(inForce.value.form.ownFields.map((f) => [f.id, f])),
  }))
  const changes = computed(() => changesOf(inForce.value.form, form))
  const reasons = computed<FormReason[]>(() => checkForm(form, facts.value))

  /** Writes another form over the one that is being written. */
  function set(next: RequestForm): void {
    Object.assign(form, copy(next))
  }

  function throwAway(): RequestForm {
    const before = copy(form)
    set(inForce.value.form)
    return before
  }

  async function putInForce(): Promise<boolean> {
    busy.value = true
    trouble.value = ''
    told.value = ''
    try {
      await api.put('/api/request-form', { version: inForce.value.version, body: form })
      inForce.value = await read()
      set(inForce.value.form)
      return true
    } catch (error) {
      if (error instanceof ApiProblem && error.status === 412) await carryOver()
      else trouble.value = sayError(error)
      return false
    } finally {
      busy.value = false
    }
  }

  const read = () => api.get('/api/request-form')
  /** Takes what somebody else put in force meanwhile as what holds, with one's own changes on top. */
  async function carryOver(): Promise<void> {
    try {
      const newest = await read()
      if (newest.version === inForce.value.version) return
      const had = changes.value.length > 0
      set(mergeForm(inForce.value.form, form, newest.form))
      inForce.value = newest
      if (had)
        told.value =
          'Somebody else put changes in force meanwhile. Yours stand on top of them now; look at them, then put ' +
          'them in force.'
    } catch (error) {
      trouble.value = sayError(error)
    }
  }
  useLive((happened) => {
    if (happened.some((c) => c.kind === 'settings' || c.kind === 'again') && !busy.value) void carryOver()
  })

  onMounted(() => {
    try {
      const kept = JSON.parse(localStorage.getItem(place) ?? 'null') as { base: RequestForm; form: RequestForm } | null
      if (kept !== null) {
        set(mergeForm(kept.base, kept.form, inForce.value.form))
        if (changes.value.length > 0) told.value = 'What you changed last time is still here, and holds for nobody yet.'
      }
    } catch {
      localStorage.removeItem(place)
    }
    watch(
      [form, inForce],
      () => {
        try {
          if (changes.value.length === 0) localStorage.removeItem(place)
          else localStorage.setItem(place, JSON.stringify({ base: inForce.value.form, form }))
        } catch {
          /* a browser that keeps nothing still puts in force */
        }
      },
      { deep: true },
    )
  })

  return { form, inForce, changes, reasons, busy, trouble, told, set, throwAway, putInForce }
}
