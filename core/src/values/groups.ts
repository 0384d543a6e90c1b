/** Things put into groups two by two: whoever is joined to one of a group is of that group. */
export class Groups<T> {
  readonly #parents = new Map<T, T>()

  /** The one that stands for a thing's group: the same for all of it until another group joins. */
  of(item: T): T {
    let at = item
    while (this.#parents.has(at)) at = this.#parents.get(at)!
    return at
  }

  /** Joins the group of the first to that of the second. */
  join(a: T, b: T): void {
    const [from, to] = [this.of(a), this.of(b)]
    if (from !== to) this.#parents.set(from, to)
  }

  areOne(a: T, b: T): boolean {
    return this.of(a) === this.of(b)
  }
}
