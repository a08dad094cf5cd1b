declare global {
  interface Window {
    rekkoEarlyKey?: string | null
    rekkoTakeEarly?: (event: KeyboardEvent) => void
  }
}

/** Presses again what was pressed before the page was alive (public/early-keys.js takes it down), once. */
export function pressEarlyKey(): void {
  const { rekkoEarlyKey: key, rekkoTakeEarly: take } = window
  if (take !== undefined) window.removeEventListener('keydown', take)
  window.rekkoEarlyKey = null
  if (typeof key === 'string') document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
}
