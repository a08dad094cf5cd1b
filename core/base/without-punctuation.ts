/**
 * A number as people mean it, without case, spaces and punctuation: "CP-QS 25" is "cpqs25". Source: rules of
 * calculation, numbers given elsewhere.
 */
export const withoutPunctuation = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '')
