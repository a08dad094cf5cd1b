/** Stands in for the virtual list that the combobox imports and that no list of ours asks for. */
export function useVirtualizer(): never {
  throw new Error('No list here is virtual: see nuxt.config.ts.')
}
