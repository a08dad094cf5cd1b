import { randomUUID } from 'node:crypto'
import type { Context } from '../context'
import { refused } from '../http/problem'
import { deliverMail } from '../mail/deliver-mail'
import { findAddresses } from '../people/person-reads'
import { requireOrganisation } from '../settings/reads'

/** Sends a letter to whoever asks, at once, so that what the mail server answers is heard. */
export async function sendTestLetter({ tx, actor }: Context): Promise<{ to: string }> {
  const { name, mailFrom } = await requireOrganisation(tx)
  const to = (await findAddresses(tx, [actor.id])).get(actor.id)?.email ?? ''
  try {
    await deliverMail({
      messageId: `<${randomUUID()}@${mailFrom.split('@')[1] ?? 'localhost'}>`,
      from: { name, address: mailFrom },
      to: { name: actor.name, address: to },
      subject: `Letters of ${name} arrive`,
      text: `${actor.name} sent this from Set-up to see whether letters arrive. Orders leave the same way.\n`,
      files: [],
    })
  } catch (error) {
    const answer = error instanceof Error ? error.message.replace(/\s+/g, ' ').slice(0, 200) : 'nothing'
    throw refused([`The letter did not leave. The mail server answered: ${answer}`])
  }
  return { to }
}
