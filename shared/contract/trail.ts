import { z } from 'zod'
import { seat } from './decide'
import { attachment, remark } from './document'
import { requestView } from './request-view'
import { defineRoute } from './route'
import { ids } from './values'

const station = z.object({
  name: z.enum(['Need', 'Decision', 'Order', 'Delivery', 'Bill']),
  amount: z.string().nullable(),
  share: z.number(),
  look: z.enum(['empty', 'dashed', 'filled', 'stopped']),
  waits: z.boolean(),
  note: z.string(),
})
export type StationView = z.infer<typeof station>
const trailEntry = z.object({
  key: z.string(),
  at: z.string(),
  station: z.enum(['Need', 'Decision', 'Order', 'Delivery', 'Bill']),
  who: z.string(),
  what: z.string(),
  more: z.string(),
  amount: z.string().nullable(),
  link: z.string().nullable(),
})
export type TrailEntry = z.infer<typeof trailEntry>
const action = z.object({
  name: z.enum(['edit', 'answer', 'remind', 'withdraw', 'wish', 'cancelRest', 'copy', 'throwAway', 'handOver']),
  allowed: z.boolean(),
  why: z.string(),
})
export type TrailAction = z.infer<typeof action>
const trailView = z.object({
  id: z.string(),
  number: z.string().nullable(),
  version: z.number(),
  state: z.string(),
  title: z.string(),
  owner: z.string(),
  isOwner: z.boolean(),
  sentence: z.string(),
  stations: z.array(station),
  entries: z.array(trailEntry),
  next: z.string(),
  money: z.array(z.object({ stage: z.enum(['reserved', 'committed', 'spent']), amount: z.string() })),
  currency: z.string(),
  request: requestView,
  remarks: z.array(remark),
  attachments: z.array(attachment),
  route: z.array(seat),
  actions: z.array(action),
})
export type TrailView = z.infer<typeof trailView>

export const trailRoutes = {
  readTrail: defineRoute({
    name: 'readTrail',
    method: 'GET',
    path: '/api/requisitions/{id}/trail',
    summary: 'One need and everything that came of it.',
    access: 'see own',
    params: ids,
    reply: trailView,
  }),
} as const
