import type { Ref } from 'vue'
import type { EditableDraft, EditableLine } from './editable-draft'

/**
 * Counts the changes of a draft, and tells of each. Every line is watched by itself: a key in one of
 * 500 looks at that line alone, where one watch over all of them would look at them all.
 */
export function useRevision(draft: EditableDraft, changed: () => void): Readonly<Ref<number>> {
  const revision = ref(0)
  const scope = effectScope()
  const watched = new Map<EditableLine, () => void>()
  const tell = () => {
    revision.value += 1
    changed()
  }

  function watchLines(): void {
    const now = new Set(draft.lines)
    for (const [line, stop] of watched)
      if (!now.has(line)) {
        stop()
        watched.delete(line)
      }
    for (const line of now)
      if (!watched.has(line)) watched.set(line, scope.run(() => watch(line, tell, { deep: true })) ?? (() => undefined))
  }
  watchLines()
  // Lines added, taken off, moved, or put in anew.
  watch(
    () => [...draft.lines],
    () => {
      watchLines()
      tell()
    },
  )
  watch(() => {
    const { lines: _, ...head } = draft
    return JSON.stringify(head)
  }, tell)
  onBeforeUnmount(() => {
    scope.stop()
  })
  return revision
}
