import { defineStore } from 'pinia'

interface UndoOffer {
  readonly key: number
  readonly sentence: string
  readonly label: string
  readonly undo: () => void | Promise<void>
  /** The moment, in milliseconds, at which the offer ends. */
  readonly until: number
  /** It stays when something else is done: each of several decisions can be taken back. */
  readonly stays: boolean
}

/** The offers to take something back, shown at the foot of the window until their time is over. */
export const useUndo = defineStore('undo', () => {
  const offers = shallowRef<readonly UndoOffer[]>([])
  const now = ref(0)
  let timer: ReturnType<typeof setInterval> | undefined
  let last = 0

  function keep(left: readonly UndoOffer[]): void {
    offers.value = left
    if (left.length === 0) {
      clearInterval(timer)
      timer = undefined
    }
  }

  function tick(): void {
    now.value = Date.now()
    if (offers.value.some((o) => o.until <= now.value)) keep(offers.value.filter((o) => o.until > now.value))
  }

  /** Offers to take back what was just done. Another such offer takes its place, unless it `stays`. */
  function show(
    sentence: string,
    label: string,
    seconds: number,
    undo: () => void | Promise<void>,
    { stays = false }: { readonly stays?: boolean } = {},
  ): void {
    last += 1
    const offer = { key: last, sentence, label, undo, until: Date.now() + seconds * 1000, stays }
    keep([...offers.value.filter((o) => o.stays), offer])
    tick()
    timer ??= setInterval(tick, 250)
  }

  async function take(offer: UndoOffer): Promise<void> {
    keep(offers.value.filter((o) => o.key !== offer.key))
    await offer.undo()
  }

  /** How many seconds are left of an offer. */
  const left = (offer: UndoOffer): number => Math.max(0, Math.ceil((offer.until - now.value) / 1000))

  return { offers, show, take, left }
})
