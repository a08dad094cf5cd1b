import { CHANNEL_NAMES, type ChannelName } from '#core/order/channel'
import type { Channel } from './channel'
import { EMAIL } from './e-mail'

/** Every channel there is. A new one is named in the core and written beside `e-mail.ts`. */
export const CHANNELS: Record<ChannelName, Channel> = { 'e-mail': EMAIL }

/** The channel of a supplier; one that is not known any more counts as e-mail. */
export function channelNamed(name: string): ChannelName {
  return CHANNEL_NAMES.find((n) => n === name) ?? 'e-mail'
}
