import type { InjectionKey } from 'vue'
import type { EditableDraft, EditableLine } from './editable-draft'

/**
 * The requisition that is being written, as the parts of its page reach it: they write here and not into their props.
 */
export interface DraftEditor {
  readonly draft: EditableDraft
  /** The names of people that own fields hold, by id. */
  readonly names: Record<string, string>
  line: (id: string) => EditableLine
}

const EDITOR: InjectionKey<DraftEditor> = Symbol('draft editor')

/** Lends the draft to all parts of the page below. */
export function provideDraftEditor(draft: EditableDraft, names: Record<string, string>): void {
  const byId = computed(() => new Map(draft.lines.map((l) => [l.id, l])))
  // A row that is on its way out still has what it last showed.
  const gone = new Map<string, EditableLine>()
  provide(EDITOR, {
    draft,
    names,
    line: (id) => {
      const found = byId.value.get(id) ?? gone.get(id)
      if (found === undefined) throw new Error('there is no such line')
      gone.set(id, found)
      return found
    },
  })
}

export function useDraftEditor(): DraftEditor {
  const editor = inject(EDITOR)
  if (editor === undefined) throw new Error('no draft is lent here')
  return editor
}
