/** What went wrong, told to whoever sees and to whoever listens; nothing where nothing did. */
export function Problem({
  says,
  id,
  className = ''
}: {
  says: string | null | undefined | false
  /** By which a field names it as what is wrong with it. */
  id?: string
  className?: string
}) {
  return says ? (
    <p id={id} role="alert" className={`font-bold ${className}`.trim()}>
      {says}
    </p>
  ) : null
}
