/** Why what was proven once is to be proven again; nothing where it still stands. */
export function Stale({ why }: { why: string | null }) {
  return why === null ? null : <span className="fine block">{why} Once more.</span>
}
