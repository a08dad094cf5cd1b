import type { Ref, ComputedRef } from 'vue'
import type { EditableLine } from './editable-draft'

/** Lines that are drawn or not together, one piece a frame: more at once would hold up what is being typed. */
const PIECE = 3
/** Up to this many lines all are drawn: nothing is gained by leaving some out. */
const ALL_UP_TO = 40
const ROW_HEIGHT = 61

interface Piece {
  readonly at: number
  readonly lines: EditableLine[]
  readonly drawn: boolean
  readonly height: number
}

/**
 * Which of many lines are drawn: those in pieces near the part in sight. A piece that goes out of sight
 * keeps the height it had, so that nothing jumps; one that holds the focus stays.
 */
export function useLineWindow(lines: ComputedRef<EditableLine[]>, grid: Readonly<Ref<HTMLElement | null>>) {
  const near = shallowRef<ReadonlySet<number>>(new Set(Array.from({ length: 8 }, (_, i) => i * PIECE)))
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

  /** Pieces that came near and are drawn in the next frames. */
  const coming = new Set<number>()
  let frame = 0
  function drawNext(): void {
    frame = 0
    const [next] = coming
    if (next === undefined) return
    coming.delete(next)
    near.value = new Set([...near.value, next])
    if (coming.size > 0) frame = requestAnimationFrame(drawNext)
  }
  function seen(entries: readonly IntersectionObserverEntry[]): void {
    const gone = new Set<number>()
    for (const entry of entries) {
      const el = entry.target as HTMLElement
      const at = Number(el.dataset.piece)
      if (entry.isIntersecting) {
        if (!near.value.has(at)) coming.add(at)
      } else if (!el.contains(document.activeElement)) {
        coming.delete(at)
        if (near.value.has(at)) {
          heights.set(at, entry.boundingClientRect.height)
          gone.add(at)
        }
      }
    }
    if (gone.size > 0) near.value = new Set([...near.value].filter((at) => !gone.has(at)))
    if (frame === 0 && coming.size > 0) frame = requestAnimationFrame(drawNext)
  }
  function observe(): void {
    observer?.disconnect()
    if (lines.value.length <= ALL_UP_TO || grid.value === null) return
    observer = new IntersectionObserver(seen, { rootMargin: '500px 0px' })
    for (const el of grid.value.querySelectorAll('[data-piece]')) observer.observe(el)
  }
  watch(
    () => Math.ceil(lines.value.length / PIECE),
    () => {
      void nextTick(observe)
    },
  )
  onMounted(observe)
  onBeforeUnmount(() => {
    observer?.disconnect()
    cancelAnimationFrame(frame)
  })

  /** Draws the piece of a line, so that its fields can be gone to. */
  async function reveal(lineId: string): Promise<void> {
    const index = lines.value.findIndex((l) => l.id === lineId)
    if (index < 0) return
    near.value = new Set([...near.value, index - (index % PIECE)])
    await nextTick()
  }
  return { pieces, reveal }
}
