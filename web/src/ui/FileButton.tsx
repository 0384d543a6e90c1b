import type { ReactNode } from 'react'

/** A button that asks for a file; the same file can be chosen again. */
export function FileButton({
  accept,
  onFile,
  className = '',
  children
}: {
  accept: string
  onFile: (file: File) => void
  className?: string
  children: ReactNode
}) {
  return (
    <label className={`btn focus-within:outline-3 focus-within:outline-plum ${className}`.trim()}>
      {children}
      <input
        type="file"
        className="sr-only"
        accept={accept}
        onChange={(event) => {
          const file = event.target.files?.[0]
          if (file) onFile(file)
          event.target.value = ''
        }}
      />
    </label>
  )
}
