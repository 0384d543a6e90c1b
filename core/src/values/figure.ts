/** What a verdict goes by: a figure, where there is a floor against it, and which way is better. */
export interface Figure {
  name: string
  value: number
  better: 'more' | 'less'
}
