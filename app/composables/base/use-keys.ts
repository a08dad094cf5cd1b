import { defineStore } from 'pinia'

export interface KeyLine {
  readonly keys: string
  readonly does: string
}

/** The keys of the place one is in, for F1. */
export const useKeysStore = defineStore('keys', () => {
  const lines = ref<readonly KeyLine[]>([])
  const open = ref(false)
  return { lines, open }
})

const ALWAYS: KeyLine[] = [
  { keys: '/', does: 'find anything' },
  { keys: 'F1', does: 'these keys' },
  { keys: 'Tab', does: 'to the next field or button' },
]

/** Says the keys of a place, listens for them while it is shown, and never inside an open picker. */
export function usePlaceKeys(lines: readonly KeyLine[], handle: (event: KeyboardEvent) => void): void {
  const store = useKeysStore()
  const listen = (event: KeyboardEvent) => {
    if (event.key === 'F1') {
      event.preventDefault()
      // Over a dialog or a calendar it opens nothing.
      if (document.querySelector('[role="dialog"]') === null) store.open = true
      return
    }
    if (!event.defaultPrevented && !store.open) handle(event)
  }
  onMounted(() => {
    store.lines = [...lines, ...ALWAYS]
    window.addEventListener('keydown', listen)
  })
  onBeforeUnmount(() => {
    window.removeEventListener('keydown', listen)
    store.lines = []
  })
}

/** Ctrl+Enter, or Cmd+Enter on a Mac. */
export function isMainKey(event: KeyboardEvent): boolean {
  return event.key === 'Enter' && (event.ctrlKey || event.metaKey)
}

/** A form with an action of its own takes the key of the main action for it, while one writes in it. */
export function submitByMainKey(event: KeyboardEvent): void {
  if (!isMainKey(event)) return
  event.preventDefault()
  ;(event.currentTarget as HTMLFormElement).requestSubmit()
}

/** True when a key belongs to what one is writing in. */
export function isTyping(event: KeyboardEvent): boolean {
  const at = event.target as HTMLElement | null
  return (
    at !== null &&
    (at.isContentEditable ||
      /^(INPUT|TEXTAREA|SELECT)$/.test(at.tagName) ||
      at.getAttribute('role') === 'option' ||
      at.getAttribute('role') === 'listbox')
  )
}

/** Whether a slash finds: outside what one writes in, and in a field that is for finding while it is empty. */
export function slashFinds(event: KeyboardEvent): boolean {
  const at = event.target as HTMLInputElement | null
  return !isTyping(event) || (at?.dataset.slashFinds !== undefined && at.value === '')
}

/** Hands the key of the main action on to what lies around a blank, where any Enter would open the blank's list. */
export function passMainKey(event: KeyboardEvent, blank: HTMLElement | null): void {
  if (!isMainKey(event)) return
  event.preventDefault()
  event.stopPropagation()
  blank?.parentElement?.dispatchEvent(new KeyboardEvent('keydown', event))
}
