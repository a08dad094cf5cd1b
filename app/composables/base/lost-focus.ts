const FOCUSABLE =
  'a[href], button:not([disabled]), input:not([disabled]), textarea:not([disabled]), select, [tabindex="0"]'

/**
 * Where the thing that had the focus goes away (an answer that was sent, a warning that was read, a row that was laid),
 * the focus goes on to what stands in its place: the first thing to use in the nearest part of the page that is still
 * there, or else the page itself.
 */
export function keepFocus(): void {
  let last: Element | null = null
  let around: Element[] = []
  let waiting = false
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
    const part = around.find((a) => a.isConnected && page?.contains(a) === true && a !== page)
    const next = [...(part?.querySelectorAll<HTMLElement>(FOCUSABLE) ?? [])].find((e) => e.offsetParent !== null)
    last = null
    ;(next ?? page)?.focus({ preventScroll: next === undefined })
  }
  new MutationObserver(() => {
    if (waiting || !isLost()) return
    waiting = true
    // Whoever puts the focus somewhere themselves does so within a frame or two.
    requestAnimationFrame(() => requestAnimationFrame(goOn))
  }).observe(document.body, { childList: true, subtree: true })
}
