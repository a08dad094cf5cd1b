import { sayTold } from '#shared/words/told'
import { OUTWARD } from '#shared/words/ways'
import { deliverMail } from '../mail/deliver-mail'
import type { Channel } from './channel'

/** Orders by e-mail: what is said in the letter, the PDF and files attached, the reference as its Message-ID. */
export const EMAIL: Channel = {
  addressOf: (supplier) => supplier.email,
  referenceOf: (id) => `<${id}@rekko.local>`,
  send: async ({ reference, to, from, told, files }) => {
    const { subject, sentence } = sayTold(told, OUTWARD)
    await deliverMail({ messageId: reference, to, from, subject, text: `${sentence}\n`, files })
  },
}
