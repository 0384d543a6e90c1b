import type { ReactNode } from 'react'

/** A button that asks for a file; the same file can be chosen again. */
export function FileButton({
  accept,
  onFile,
  name,
  className = '',
  children
}: {
  accept: string
  onFile: (file: File) => void
  /** What it is called where its words alone do not tell what the file is of. */
  name?: string
  className?: string
  children: ReactNode
}) {
  return (
    <label
      className={`btn focus-within:outline-3 focus-within:outline-offset-2 focus-within:outline-plum ${className}`.trim()}
    >
      {children}
      <input
        type="file"
        className="sr-only"
        accept={accept}
        {...(name === undefined ? {} : { 'aria-label': name })}
        onChange={(event) => {
          const file = event.target.files?.[0]
          if (file) onFile(file)
          event.target.value = ''
        }}
      />
    </label>
  )
}
