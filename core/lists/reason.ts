/** What is wrong with a row, so that it cannot be taken. */
export type ListReason =
  | { readonly code: 'missing'; readonly column: string }
  | { readonly code: 'too-long'; readonly column: string; readonly most: number }
  | {
      readonly code: 'no-number' | 'no-day' | 'no-mail' | 'no-currency' | 'no-unit' | 'no-steps' | 'check-digit'
      readonly column: string
      readonly text: string
    }
  | { readonly code: 'beyond'; readonly column: string; readonly least: string; readonly most: string }
  | { readonly code: 'decimals'; readonly column: string; readonly decimals: number }
  | { readonly code: 'no-choice'; readonly column: string; readonly text: string; readonly among: readonly string[] }
  | { readonly code: 'unknown' | 'circle'; readonly column: string; readonly text: string }
  | { readonly code: 'twice'; readonly row: number }
  /** The columns that together name a budget line name none. */
  | { readonly code: 'no-budget-line'; readonly text: string }
  /** A role for a department and a place at once, or for neither. */
  | { readonly code: 'not-one-part' }
  | { readonly code: 'ends-before-it-begins' }
  /** Money spent before has no number; an order that is still open elsewhere does. */
  | { readonly code: 'order-without-number' }
  /** A tax category and a rate that exclude each other. */
  | { readonly code: 'taxed-at-nothing' | 'untaxed-at-a-rate' }
