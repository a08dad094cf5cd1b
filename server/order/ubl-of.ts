import type { PaperFile } from '../files/paper'
import { messageOf } from './message-of'
import { sentName, type OrderSnapshot } from './snapshot'
import { writeUbl } from './ubl'

/** A sent state of an order for machines: what lies inside its PDF, and is had by itself. */
export const ublOf = (snapshot: OrderSnapshot): PaperFile => ({
  name: `${sentName(snapshot)}.xml`,
  mime: 'text/xml',
  description: 'The same as UBL 2.1',
  text: writeUbl(messageOf(snapshot)),
})
