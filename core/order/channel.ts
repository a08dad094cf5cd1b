/** The channels over which an order may be sent; each is a record on the server, with words beside it. */
export const CHANNEL_NAMES = ['e-mail'] as const
export type ChannelName = (typeof CHANNEL_NAMES)[number]

/**
 * Bytes of files that go to a supplier with one order, whatever its channel; what one request gives its supplier stays
 * within it too, so that each can be ordered by itself. Mail servers commonly take 20 to 25 MB, of which encoding adds
 * a third (common practice, no source).
 */
export const MOST_SUPPLIER_FILES = 14_000_000
