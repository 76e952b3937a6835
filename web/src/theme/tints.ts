/** The tints that a row can have; the first is none. */
export const tints = [
  'transparent',
  '#b98a3c',
  '#7f8f3a',
  '#3f8f6b',
  '#3a8a9a',
  '#4a76b8',
  '#7a68b0',
  '#a0607c',
  '#8a6a52',
]
