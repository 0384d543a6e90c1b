/** How many characters must be changed, put in or taken out to turn one text into the other (Levenshtein). */
export function editDistance(a: string, b: string): number {
  let above = Array.from({ length: b.length + 1 }, (_, at) => at)
  for (let row = 1; row <= a.length; row++) {
    const here = [row]
    for (let column = 1; column <= b.length; column++) {
      here[column] = Math.min(
        above[column]! + 1,
        here[column - 1]! + 1,
        above[column - 1]! + (a[row - 1] === b[column - 1] ? 0 : 1)
      )
    }
    above = here
  }
  return above[b.length]!
}
