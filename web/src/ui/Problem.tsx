/** What went wrong, told to whoever sees and to whoever listens; nothing where nothing did. */
export function Problem({ says, className = '' }: { says: string | null | undefined | false; className?: string }) {
  return says ? (
    <p role="alert" className={`font-bold ${className}`.trim()}>
      {says}
    </p>
  ) : null
}
