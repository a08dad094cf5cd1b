import type { Component } from 'vue'

/** What was fetched once is there for whatever is drawn later. */
const fetched = new Map<() => Promise<{ default: Component }>, Component>()

/**
 * A component that the first load of a page does without: fetched with the first key or press on the page, or when
 * `fetch` is called. `load` is a constant of its module, since what it brought is kept by it.
 */
export function useAtFirstSign(load: () => Promise<{ default: Component }>) {
  const component = shallowRef<Component | null>(null)
  async function fetch(): Promise<void> {
    const known = fetched.get(load) ?? (await load()).default
    fetched.set(load, known)
    component.value = known
  }
  const onSign = () => void fetch()
  const SIGNS = ['keydown', 'pointerdown']
  onMounted(() => {
    // Only now, so that a page is taken over as the server drew it.
    if (fetched.has(load)) onSign()
    else for (const sign of SIGNS) window.addEventListener(sign, onSign, { capture: true, once: true })
  })
  onBeforeUnmount(() => {
    for (const sign of SIGNS) window.removeEventListener(sign, onSign, { capture: true })
  })
  return { component, fetch }
}
