declare global {
  interface Window {
    rekkoPressEarly?: () => void
  }
}

/** The page is alive: presses again what was pressed before (public/early-presses.js takes it down), and says so. */
export function pressEarly(): void {
  window.rekkoPressEarly?.()
  document.documentElement.dataset.alive = ''
}
