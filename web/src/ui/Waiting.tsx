/** That something is on its way. */
export function Waiting({ message = 'Loading …', className = '' }: { message?: string; className?: string }) {
  return (
    <p role="status" className={`text-soft ${className}`.trim()}>
      {message}
    </p>
  )
}
