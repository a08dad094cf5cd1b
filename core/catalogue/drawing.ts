/** What stands for a category where an item has no picture. */
export const DRAWINGS = [
  'box',
  'bottle',
  'bag',
  'drop',
  'fish',
  'flask',
  'gauge',
  'lamp',
  'leaf',
  'medicine',
  'paper',
  'people',
  'ring',
  'rope',
  'screen',
  'sign',
  'tool',
  'truck',
  'wire',
] as const
export type Drawing = (typeof DRAWINGS)[number]
