/** How a value came to be known. */
export const origins = ['typed', 'label', 'catalogue', 'calculated', 'measured'] as const

export type Origin = (typeof origins)[number]
