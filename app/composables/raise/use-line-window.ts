import type { Ref, ComputedRef } from 'vue'
import type { EditableLine } from './use-draft'

/** Lines that are drawn or not together. */
const PIECE = 10
/** Up to this many lines all are drawn: nothing is gained by leaving some out. */
const ALL_UP_TO = 40
const ROW_HEIGHT = 61

interface Piece { readonly at: number; readonly lines: EditableLine[]; readonly drawn: boolean; readonly height: number }

/**
 * Which of many lines are drawn: those in pieces near the part in sight. A piece that goes out of sight
 * keeps the height it had, so that nothing jumps; one that holds the focus stays.
 */
export function useLineWindow(lines: ComputedRef<EditableLine[]>, grid: Readonly<Ref<HTMLElement | null>>) {
  const near = shallowRef<ReadonlySet<number>>(new Set([0, PIECE, 2 * PIECE]))
  const heights = new Map<number, number>()
  let observer: IntersectionObserver | null = null

  const pieces = computed<Piece[]>(() => {
    const all = lines.value.length <= ALL_UP_TO
    return Array.from({ length: Math.ceil(lines.value.length / PIECE) }, (_, i) => {
      const at = i * PIECE
      const own = lines.value.slice(at, at + PIECE)
      return { at, lines: own, drawn: all || near.value.has(at), height: heights.get(at) ?? own.length * ROW_HEIGHT }
    })
  })

  function seen(entries: readonly IntersectionObserverEntry[]): void {
    const now = new Set(near.value)
    for (const entry of entries) {
      const el = entry.target as HTMLElement
      const at = Number(el.dataset.piece)
      if (entry.isIntersecting) now.add(at)
      else if (!el.contains(document.activeElement)) { if (now.has(at)) heights.set(at, entry.boundingClientRect.height); now.delete(at) }
    }
    near.value = now
  }
  function observe(): void {
    observer?.disconnect()
    if (lines.value.length <= ALL_UP_TO || grid.value === null) return
    observer = new IntersectionObserver(seen, { rootMargin: '500px 0px' })
    for (const el of grid.value.querySelectorAll('[data-piece]')) observer.observe(el)
  }
  watch(() => Math.ceil(lines.value.length / PIECE), () => { void nextTick(observe) })
  onMounted(observe)
  onBeforeUnmount(() => observer?.disconnect())

  /** Draws the piece of a line, so that its fields can be gone to. */
  async function reveal(lineId: string): Promise<void> {
    const index = lines.value.findIndex((l) => l.id === lineId)
    if (index < 0) return
    near.value = new Set([...near.value, index - index % PIECE])
    await nextTick()
  }
  return { pieces, reveal }
}
