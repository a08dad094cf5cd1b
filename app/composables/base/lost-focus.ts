const FOCUSABLE =
  'a[href], button:not([disabled]), input:not([disabled]), textarea:not([disabled]), select, [tabindex="0"]'

/**
 * Where the thing that had the focus goes away (an answer that was sent, a warning that was read, a row that was laid),
 * the focus goes on to what stands in its place: the first field of a form that a button made room for, the button
 * again when the form is left, else the first thing to use in the nearest part of the page that is still there, or else
 * the page itself.
 */
export function keepFocus(): void {
  let last: Element | null = null
  let around: Element[] = []
  let waiting = false
  let came: Element[] = []
  window.addEventListener('focusin', (event) => {
    last = event.target as Element
    around = []
    for (let at = last.parentElement; at !== null; at = at.parentElement) around.push(at)
  })
  const isLost = () => last !== null && !last.isConnected && document.activeElement === document.body
  const goOn = () => {
    waiting = false
    if (!isLost()) return
    const page = document.getElementById('page')
    const parts = around.filter((a) => a.isConnected && page?.contains(a) === true && a !== page)
    const usable = (of: Element | undefined) =>
      [...(of?.querySelectorAll<HTMLElement>(FOCUSABLE) ?? [])].filter((e) => e.offsetParent !== null)
    const wasInForm = around.some((a) => a instanceof HTMLFormElement && !a.isConnected)
    const room = wasInForm ? came : came.filter((c) => c instanceof HTMLFormElement)
    const beside = parts.slice(0, 2).map((p) => usable(p).find((e) => room.some((c) => c.contains(e))))
    const next = beside.find((e) => e !== undefined) ?? usable(parts[0])[0]
    last = null
    ;(next ?? page)?.focus({ preventScroll: next === undefined })
  }
  new MutationObserver((changes) => {
    if (waiting || !isLost()) return
    // What comes later, such as a list that is read again, did not come in its place.
    came = changes.flatMap((c) => [...c.addedNodes].filter((n) => n instanceof Element))
    waiting = true
    // Whoever puts the focus somewhere themselves does so within a frame or two.
    requestAnimationFrame(() => requestAnimationFrame(goOn))
  }).observe(document.body, { childList: true, subtree: true })
}
