/**
 * Opens the list of a combobox that is closed, as its own arrow key does: on a press of the mouse or
 * finger, and on Enter while nothing is typed. Its field opens by itself only when it is typed in.
 */
export function openCombobox(event: Event): void {
  const field = event.target as HTMLElement
  if (field.getAttribute('aria-expanded') === 'true') return
  event.preventDefault()
  if (event instanceof KeyboardEvent) event.stopImmediatePropagation()
  field.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true, cancelable: true }))
}

/** Closes the list without taking anything: leaving a field in which nothing was typed chooses nothing. */
export function closeCombobox(event: Event): void {
  const field = event.target as HTMLElement
  if (field.getAttribute('aria-expanded') === 'true')
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true, cancelable: true }))
}
