/** The bands that Wi-Fi is sent on, in GHz. */
export const bands = ['2.4', '5', '6'] as const
export type Band = (typeof bands)[number]
