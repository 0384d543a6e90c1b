import { Link } from 'react-router'

/** What stands in a screen's place where it cannot be shown: why, and the way back. */
export function Instead({
  message,
  alert = false,
  to,
  back
}: {
  message: string
  alert?: boolean
  to?: string
  back?: string
}) {
  return (
    <main className="p-6">
      <p {...(alert ? { role: 'alert', className: 'font-bold' } : {})}>
        {message}
        {to !== undefined && (
          <>
            {' '}
            <Link className="underline" to={to}>
              {back}
            </Link>
          </>
        )}
      </p>
    </main>
  )
}
