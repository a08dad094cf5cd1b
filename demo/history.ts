import { and, eq } from 'drizzle-orm'
import { addDays, dayOf, isBusinessDay, type Day } from '#core/base/day'
import { dec } from '#core/base/decimal'
import type { Context } from '../server/context'
import type { Db } from '../server/db/client'
import { inTransaction } from '../server/db/transaction'
import { approvalSeat } from '../server/db/schema/approval'
import { Problem } from '../server/http/problem'
import { layOnTray, takeOffTray } from '../server/order/lay-tray'
import { issueOrder } from '../server/order/issue-order'
import { answerSomeOrders } from './answered-orders'
import { changeSomeOrders } from './changed-orders'
import { askTheYard, BLANKET_AGO, CALLED, callOffForWinter, orderForWinter } from './blanket-order'
import { enterNightCall } from './direct-order'
import { conditionsFor } from './order-conditions'
import { haveApproved, leaveOneWaiting } from './orders-to-decide'
import { listDeskLines, type DeskLineRow } from '../server/order/desk-reads'
import { conditionsOf, findOrder } from '../server/order/reads'
import { setOrderConditions } from '../server/order/set-conditions'
import { findActor } from '../server/people/actor-reads'
import { answerQuestion } from '../server/approval/answer-question'
import { askQuestion } from '../server/approval/ask-question'
import { decide, type DecideMove } from '../server/approval/decide'
import { REQUISITION } from '../server/requisition/kind'
import { findRequisition } from '../server/requisition/reads'
import { createDraft, saveDraft } from '../server/requisition/save-draft'
import { sendRequisition } from '../server/requisition/send-requisition'
import { withdrawRequisition } from '../server/requisition/withdraw-requisition'
import { draftOf } from './draft-of'
import { idOf, seeded } from './ids'
import { NEEDS, OPEN_NEEDS, type Need } from './world/needs'
import { SUPPLIER_ROWS } from './world/catalogue'
import { personId } from './world/people'

type Fate =
  'ordered' | 'approved' | 'waiting' | 'asked' | 'rejected' | 'sent back' | 'sent again' | 'withdrawn' | 'draft'
interface Doing {
  readonly at: Date
  readonly run: () => Promise<void>
}

/** Minutes that somebody at Hallamere takes to answer, on average. */
const ANSWER_MINUTES = 260

/** Plays what happened at Hallamere up to a moment, through the same use cases as the people would. */
export class History {
  private readonly agenda: Doing[] = []
  private readonly random = seeded(20260401)
  /** What stands open stands open at any hour: no buyer's morning takes it. */
  private readonly staysOpen = new Set(OPEN_NEEDS.map((_, i) => idOf('requisition', `open ${i}`)))

  constructor(
    private readonly db: Db,
    private readonly now: Date,
    private readonly timeZone: string,
    private readonly afterEach: () => Promise<void>,
  ) {}

  /** `past` finished needs over the last hundred days, then those that stand open. */
  async play(past: number): Promise<void> {
    const today = dayOf(this.now, this.timeZone)
    for (let i = 0; i < past; i += 1) this.planPast(i, past, today)
    OPEN_NEEDS.forEach((need, i) => {
      this.planNeed(need, `open ${i}`, new Date(this.now.getTime() - need.hoursAgo * 3_600_000), need.leave)
    })
    for (let ago = 100; ago >= 3; ago -= 1) {
      const day = addDays(today, -ago)
      if (isBusinessDay(day, new Set()))
        this.plan(new Date(`${day}T10:15:00Z`), () => this.buy(new Date(`${day}T10:15:00Z`)))
    }
    const morning = (ago: number): Date => {
      let day = addDays(today, -ago)
      while (!isBusinessDay(day, new Set())) day = addDays(day, -1)
      return new Date(`${day}T08:40:00Z`)
    }
    const as = this.as.bind(this)
    this.plan(morning(BLANKET_AGO), () => orderForWinter(this.db, as, morning(BLANKET_AGO), today, this.timeZone))
    this.plan(morning(10), () => askTheYard(as, morning(10)))
    for (const { ago, much } of CALLED) this.plan(morning(ago), () => callOffForWinter(this.db, as, morning(ago), much))
    for (let next = this.next(); next !== undefined; next = this.next()) {
      await next.run()
      await this.afterEach()
    }
    const before = (hours: number) => new Date(this.now.getTime() - hours * 3_600_000)
    await changeSomeOrders(this.db, as, before(3))
    await answerSomeOrders(this.db, as, before(2))
    await leaveOneWaiting(this.db, as, before(2))
    await enterNightCall(this.db, as, before(5), this.timeZone)
    await this.afterEach()
  }

  private plan(at: Date, run: () => Promise<void>): void {
    this.agenda.push({ at, run })
  }

  private next(): Doing | undefined {
    if (this.agenda.length === 0) return undefined
    let first = 0
    for (let i = 1; i < this.agenda.length; i += 1)
      if ((this.agenda[i]?.at ?? this.now) < (this.agenda[first]?.at ?? this.now)) first = i
    return this.agenda.splice(first, 1)[0]
  }

  private planPast(i: number, past: number, today: Day): void {
    let day = addDays(today, -96 + Math.floor((i * 91) / past))
    while (!isBusinessDay(day, new Set())) day = addDays(day, 1)
    const two = (n: number) => String(n).padStart(2, '0')
    const hour = two(7 + Math.floor(this.random() * 8))
    const at = new Date(`${day}T${hour}:${two(Math.floor(this.random() * 60))}:00Z`)
    const need = NEEDS[(i * 7) % NEEDS.length]
    if (need === undefined) return
    const roll = this.random()
    const fate: Fate =
      roll < 0.06
        ? 'rejected'
        : roll < 0.12
          ? 'sent again'
          : roll < 0.16
            ? 'withdrawn'
            : roll < 0.2
              ? 'sent back'
              : 'ordered'
    this.planNeed(need, `past ${i}`, at, fate)
  }

  private planNeed(need: Need, key: string, at: Date, fate: Fate): void {
    const by = need.by[Math.floor(this.random() * need.by.length)] ?? need.by[0] ?? ''
    this.plan(at, () => this.raise(need, by, key, at, fate))
  }

  private async as<T>(person: string, at: Date, work: (ctx: Context) => Promise<T>): Promise<T> {
    return inTransaction(this.db, async (tx) => {
      // Whoever has left since was still here then.
      const actor = await findActor(tx, person, at)
      if (actor === null) throw new Error('somebody who is gone acts in the demo')
      return work({ tx, now: at, actor })
    })
  }

  private async raise(need: Need, by: string, key: string, at: Date, fate: Fate): Promise<void> {
    const id = idOf('requisition', key)
    const written = draftOf(need, dayOf(at, this.timeZone), key)
    // Whoever asks has read what there is to mind of a supplier or an item.
    const draft = {
      ...written,
      readWarnings: written.lines.flatMap((l) => [l.itemId, l.supplierId].flatMap((x) => x ?? [])),
    }
    await this.as(personId(by), at, (ctx) => createDraft(ctx, id, draft))
    if (fate === 'draft') return
    try {
      await this.as(personId(by), at, (ctx) => sendRequisition(ctx, id, 1))
    } catch (error) {
      if (!(error instanceof Problem) || error.type !== 'missing') throw error
      // A budget line asks why; its author says so and sends it again. One that refuses ends the story.
      const version = await this.as(personId(by), at, (ctx) =>
        saveDraft(ctx, id, 1, { ...draft, overBudgetReason: 'it cannot wait for the next year' }),
      )
      try {
        await this.as(personId(by), at, (ctx) => sendRequisition(ctx, id, version.version))
      } catch (again) {
        if (again instanceof Problem) return
        throw again
      }
    }
    if (fate === 'waiting') return
    if (fate === 'withdrawn') {
      const then = this.later(at, 60)
      this.plan(then, () => this.withdraw(by, id, then))
      return
    }
    this.planDecision(id, by, at, fate)
  }

  private decided = 0

  private later(at: Date, minutes: number): Date {
    return new Date(at.getTime() + Math.round((0.3 + 1.4 * this.random()) * minutes) * 60_000)
  }

  private planDecision(id: string, by: string, at: Date, fate: Fate): void {
    const then = this.later(at, ANSWER_MINUTES)
    const when = then > this.now ? new Date(Math.max(at.getTime() + 60_000, this.now.getTime() - 600_000)) : then
    this.plan(when, () => this.decide(id, by, when, fate))
  }

  private async decide(id: string, by: string, at: Date, fate: Fate): Promise<void> {
    const [seat] = await this.db
      .select({ actor: approvalSeat.actorId })
      .from(approvalSeat)
      .where(and(eq(approvalSeat.documentId, id), eq(approvalSeat.state, 'open')))
      .orderBy(approvalSeat.stepAt, approvalSeat.actorId)
      .limit(1)
    const kept = await findRequisition(this.db, id)
    if (seat === undefined || kept === null) return
    if (fate === 'asked') {
      await this.as(seat.actor, at, (ctx) =>
        askQuestion(ctx, REQUISITION, id, 'Can this wait for the spring order, or is the store really empty?', null),
      )
      return
    }
    if (this.random() < 0.1 && fate === 'ordered') {
      await this.as(seat.actor, at, (ctx) =>
        askQuestion(ctx, REQUISITION, id, 'Is this the last of it for this quarter?', null),
      )
      await this.as(kept.ownerId, this.later(at, 5), (ctx) =>
        answerQuestion(ctx, REQUISITION, id, 'Yes, unless something breaks.'),
      )
    }
    const move: DecideMove =
      fate === 'rejected' ? 'reject' : fate === 'sent back' || fate === 'sent again' ? 'sendBack' : 'approve'
    const comment =
      move === 'reject'
        ? 'We have this in the north store, please look there first.'
        : move === 'sendBack'
          ? 'Half of it will do until the new year.'
          : ''
    // Some answer the mail, on their way.
    this.decided += 1
    const byMail = this.decided % 9 === 5
    await this.as(seat.actor, at, (ctx) =>
      decide({ ...ctx, actor: { ...ctx.actor, byMail } }, REQUISITION, id, kept.version, move, comment),
    )
    if (fate === 'sent again') {
      const then = this.later(at, 120)
      this.plan(then, () => this.sendAgain(id, by, then))
    } else if (move === 'approve') this.planDecision(id, by, at, fate)
  }

  private async sendAgain(id: string, by: string, at: Date): Promise<void> {
    const kept = await findRequisition(this.db, id)
    if (kept === null) return
    // Half of each, rounded up to a whole number.
    const lines = kept.draft.lines.map((l) => ({
      ...l,
      quantity: dec(l.quantity).times(dec('0.5')).plus(dec('0.499999')).toFixed(0),
    }))
    const saved = await this.as(personId(by), at, (ctx) => saveDraft(ctx, id, kept.version, { ...kept.draft, lines }))
    await this.as(personId(by), at, (ctx) => sendRequisition(ctx, id, saved.version))
    this.planDecision(id, by, at, 'ordered')
  }

  private async withdraw(by: string, id: string, at: Date): Promise<void> {
    const kept = await findRequisition(this.db, id)
    if (kept?.state === 'in approval')
      await this.as(personId(by), at, (ctx) => withdrawRequisition(ctx, id, kept.version))
  }

  /** A buyer's morning: what waits is put on trays by supplier and place, and issued. */
  private async buy(at: Date): Promise<void> {
    const groups = new Map<string, DeskLineRow[]>()
    for (const line of await listDeskLines(this.db, 'all', 500)) {
      if (this.staysOpen.has(line.requisitionId)) continue
      const key = `${line.supplierId ?? line.requisitionId} ${line.shipToId} ${line.currency}`
      groups.set(key, [...(groups.get(key) ?? []), line])
    }
    for (const lines of [...groups.values()]) {
      if (this.random() < 0.75) await this.order(lines, at)
    }
  }

  /** Says how an order is delivered, or that it was placed already, where its supplier is one of those. */
  private async sayConditions(buyer: string, orderId: string, at: Date): Promise<void> {
    await this.as(buyer, at, async (ctx) => {
      const tray = await findOrder(ctx.tx, orderId)
      const said = tray === null ? null : conditionsFor(tray.supplier, conditionsOf(tray), dayOf(at, this.timeZone))
      if (said !== null) await setOrderConditions(ctx, orderId, tray?.version ?? 1, said)
    })
  }

  private async order(lines: readonly DeskLineRow[], at: Date): Promise<void> {
    const supplierId = lines[0]?.supplierId ?? SUPPLIER_ROWS.find((s) => s.name === 'Harbour Waste')?.id ?? null
    const buyer = personId('Leonie Farrow')
    const { orderId } = await this.as(buyer, at, (ctx) =>
      layOnTray(ctx, { orderId: null, supplierId, parts: lines.map((l) => ({ lineId: l.id, quantity: null })) }),
    )
    await this.sayConditions(buyer, orderId, at)
    const issue = (then: Date) =>
      this.as(buyer, then, async (ctx) => issueOrder(ctx, orderId, (await findOrder(ctx.tx, orderId))?.version ?? 1))
    try {
      await issue(at)
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      // What she may not issue alone is decided on first; what neither may be stays where it was.
      try {
        await issue(await haveApproved(this.db, this.as.bind(this), orderId, buyer, at))
      } catch (again) {
        if (!(again instanceof Problem)) throw again
        await this.as(buyer, at, (ctx) => takeOffTray(ctx, orderId, null))
      }
    }
  }
}
