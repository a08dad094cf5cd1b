/** A table as it was read from a file. */
export interface Sheet {
  readonly rows: readonly (readonly string[])[]
  /** What was done to read it, in sentences. */
  readonly notes: readonly string[]
}

/** For whom a file is read: the currency that rates are for, and the mark before decimals. */
export interface ReadFor {
  readonly base: string
  readonly mark: '.' | ','
}
