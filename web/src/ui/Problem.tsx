/** What went wrong, told to whoever sees and to whoever listens; nothing where nothing did. */
export function Problem({
  message,
  id,
  className = ''
}: {
  message: string | null | undefined | false
  /** By which a field names it as what is wrong with it. */
  id?: string
  className?: string
}) {
  return message ? (
    <p id={id} role="alert" className={`font-bold ${className}`.trim()}>
      {message}
    </p>
  ) : null
}
