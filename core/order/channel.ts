/** The channels over which an order may be sent; each is a record on the server, with words beside it. */
export const CHANNEL_NAMES = ['e-mail'] as const
export type ChannelName = (typeof CHANNEL_NAMES)[number]
