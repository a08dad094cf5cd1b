import type { DecimalText } from '#core/base/decimal'
import { proposeTitle } from '#core/requisition/title'
import { readFacts } from '#shared/contract/draft-facts'
import type { ItemFound } from '#shared/contract/catalogue'
import { capital, formatCount } from '#shared/words/format'
import { ApiProblem, sayError, useApi } from '~/composables/base/use-api'
import { useUndo } from '~/composables/base/use-undo'
import { useWording } from '~/composables/base/use-wording'
import { emptyDraft, type EditableDraft } from '~/composables/raise/editable-draft'
import { lineForItem } from '~/composables/raise/new-line'

/** An item and how many of it. */
export interface Picked {
  readonly item: ItemFound
  readonly quantity: DecimalText
}

/** The draft that things of the catalogue are added to: the one that was written last. */
export function useOpenRequisition() {
  const api = useApi()
  const undo = useUndo()
  const wording = useWording()
  const open = shallowRef<{ readonly id: string; readonly title: string; readonly lines: number } | null>(null)
  const busy = ref(false)
  const trouble = ref('')

  async function find(): Promise<void> {
    try {
      const { rows } = await api.get('/api/requisitions', { query: { view: 'drafts', limit: 1 } })
      const [last] = rows
      if (last === undefined) open.value = null
      else await show(last.id)
    } catch (e) {
      trouble.value = sayError(e)
    }
  }
  async function show(id: string): Promise<void> {
    const { draft, suppliers } = await api.get('/api/requisitions/{id}', { params: { id } })
    const called = draft.lines.length === 0 ? '' : proposeTitle(draft, (supplierId) => suppliers[supplierId])
    const title = draft.title || called
    open.value = { id, title, lines: draft.lines.length }
  }

  /** Writes the draft that is open anew by `change`, once more where somebody wrote it meanwhile. */
  async function rewrite(id: string, change: (draft: EditableDraft) => Promise<void>): Promise<void> {
    for (let tries = 0; ; tries += 1) {
      const view = await api.get('/api/requisitions/{id}', { params: { id } })
      const draft = structuredClone(view.draft) as EditableDraft
      await change(draft)
      try {
        const body = { draft, ownerId: view.ownerId }
        await api.put('/api/requisitions/{id}', { params: { id }, body, version: view.version })
        return
      } catch (e) {
        if (tries > 1 || !(e instanceof ApiProblem) || e.status !== 412) throw e
      }
    }
  }
  const factsOf = async (draft: EditableDraft, requisitionId?: string) =>
    readFacts(
      await api.get('/api/draft-facts', {
        query: {
          departmentId: draft.departmentId ?? undefined,
          accountingDate: draft.accountingDate ?? undefined,
          requisitionId,
        },
      }),
    )
  /** Lines at the foot of a draft, as if they had been picked there. */
  async function append(draft: EditableDraft, picked: readonly Picked[], requisitionId?: string): Promise<string[]> {
    const facts = { ...(await factsOf(draft, requisitionId)), attached: [] }
    const added = picked.map(({ item, quantity }) => {
      const line = lineForItem(item, quantity, draft.lines.at(-1), facts, wording.today.value)
      draft.lines.push(line)
      return line.id
    })
    return added
  }
  async function begin(picked: readonly Picked[]): Promise<string> {
    const { departments } = await api.get('/api/raise-choices')
    const draft = emptyDraft(departments[0]?.id ?? null, departments[0]?.usualShipToId ?? null)
    await append(draft, picked)
    const id = crypto.randomUUID()
    await api.post('/api/requisitions', { body: { id, draft, ownerId: null }, key: id })
    return id
  }

  /** Adds items to the draft that is open, or begins one with them; true when they are on it. */
  async function add(picked: readonly Picked[]): Promise<boolean> {
    if (busy.value || picked.length === 0) return false
    busy.value = true
    trouble.value = ''
    try {
      const into = open.value
      let added: string[] = []
      const id =
        into === null
          ? await begin(picked)
          : await rewrite(into.id, async (draft) => {
              added = await append(draft, picked, into.id)
            }).then(() => into.id)
      await show(id)
      const sentence = `${capital(formatCount(picked.length, 'line is', 'lines are'))} on the request.`
      undo.show(sentence, picked.length === 1 ? 'Take it off again' : 'Take them off again', 10, async () => {
        if (into === null) {
          const { version } = await api.get('/api/requisitions/{id}', { params: { id } })
          await api.remove('/api/requisitions/{id}', { params: { id }, version })
        } else
          await rewrite(id, (draft) => {
            draft.lines = draft.lines.filter((l) => !added.includes(l.id))
            return Promise.resolve()
          })
        await find()
      })
      return true
    } catch (e) {
      trouble.value = sayError(e)
      return false
    } finally {
      busy.value = false
    }
  }
  return { open, busy, trouble, find, add }
}
