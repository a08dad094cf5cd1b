import { defineStore } from 'pinia'

export interface UndoOffer {
  readonly sentence: string
  readonly label: string
  readonly undo: () => void | Promise<void>
  /** The moment, in milliseconds, at which the offer ends. */
  readonly until: number
}

/** The one offer to take something back, shown at the foot of the window until its time is over. */
export const useUndo = defineStore('undo', () => {
  const offer = shallowRef<UndoOffer | null>(null)
  const left = ref(0)
  let timer: ReturnType<typeof setInterval> | undefined

  function end(): void {
    clearInterval(timer)
    offer.value = null
  }

  function tick(): void {
    left.value = Math.max(0, Math.ceil(((offer.value?.until ?? 0) - Date.now()) / 1000))
    if (left.value === 0) end()
  }

  function show(sentence: string, label: string, seconds: number, undo: () => void | Promise<void>): void {
    clearInterval(timer)
    offer.value = { sentence, label, undo, until: Date.now() + seconds * 1000 }
    tick()
    timer = setInterval(tick, 250)
  }

  async function take(): Promise<void> {
    const taken = offer.value
    end()
    await taken?.undo()
  }

  return { offer, left, show, take, end }
})
