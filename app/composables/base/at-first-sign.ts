import type { Component } from 'vue'

type Load = () => Promise<{ default: Component }>

/** What was fetched once is there for whatever is drawn later. */
const fetched = new Map<Load, Component>()
/** What was drawn while it was being fetched, and takes it as soon as it comes. */
const waiting = new Map<Load, Set<(component: Component) => void>>()

/**
 * A component that the first load of a page does without: fetched with the first key or press on the page, or when
 * `fetch` is called. `load` is a constant of its module, since what it brought is kept by it. What is drawn meanwhile
 * does not wait for a press of its own: that would change what is being pressed.
 */
export function useAtFirstSign(load: Load) {
  const component = shallowRef<Component | null>(null)
  const take = (come: Component) => {
    component.value = come
  }
  async function fetch(): Promise<void> {
    const known = fetched.get(load) ?? (await load()).default
    fetched.set(load, known)
    take(known)
    for (const other of waiting.get(load) ?? []) other(known)
    waiting.delete(load)
  }
  const onSign = () => void fetch()
  const SIGNS = ['keydown', 'pointerdown']
  onMounted(() => {
    // Only now, so that a page is taken over as the server drew it.
    const known = fetched.get(load)
    if (known !== undefined) {
      take(known)
      return
    }
    waiting.set(load, (waiting.get(load) ?? new Set()).add(take))
    for (const sign of SIGNS) window.addEventListener(sign, onSign, { capture: true, once: true })
  })
  onBeforeUnmount(() => {
    waiting.get(load)?.delete(take)
    for (const sign of SIGNS) window.removeEventListener(sign, onSign, { capture: true })
  })
  return { component, fetch }
}
