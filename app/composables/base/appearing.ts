/** The element of an id as soon as it is there; null where it does not come within half a second. */
export function appearing(id: string): Promise<HTMLElement | null> {
  const now = document.getElementById(id)
  if (now !== null) return Promise.resolve(now)
  return new Promise((resolve) => {
    const done = (found: HTMLElement | null) => {
      observer.disconnect()
      clearTimeout(late)
      resolve(found)
    }
    const observer = new MutationObserver(() => {
      const found = document.getElementById(id)
      if (found !== null) done(found)
    })
    const late = setTimeout(() => {
      done(null)
    }, 500)
    observer.observe(document.body, { childList: true, subtree: true, attributeFilter: ['id'] })
  })
}
