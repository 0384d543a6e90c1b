import { Dialog } from 'radix-ui'
import { X } from 'lucide-react'
import type { ReactNode } from 'react'

/** The cursor goes to the first field to fill in, where there is one; else to what puts the sheet away. */
function toFirstField(event: Event): void {
  const field = (event.currentTarget as HTMLElement | null)?.querySelector<HTMLElement>('input, textarea, select')
  if (!field) return
  event.preventDefault()
  field.focus()
}

const widths = { false: 'max-w-xl', true: 'max-w-3xl', most: 'max-w-6xl' } as const

/** A paper that was called up: over everything until it is put away. */
export function Sheet({
  open,
  onClose,
  title,
  description,
  children,
  wide = false
}: {
  open: boolean
  onClose: () => void
  title: string
  description?: string
  children: ReactNode
  wide?: boolean | 'most'
}) {
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(now) => {
        if (!now) onClose()
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-band/70" />
        <Dialog.Content
          className={`fixed left-1/2 top-1/2 z-50 flex max-h-[92dvh] w-[calc(100vw-1.5rem)] -translate-x-1/2 -translate-y-1/2 flex-col border-2 border-ink bg-sheet ${widths[`${wide}`]}`}
          {...(description ? {} : { 'aria-describedby': undefined })}
          onOpenAutoFocus={toFirstField}
        >
          <div className="flex items-start gap-3 border-b border-rule p-4">
            <div className="grow">
              <Dialog.Title className="text-xl">{title}</Dialog.Title>
              {description && <Dialog.Description className="mt-1 text-soft">{description}</Dialog.Description>}
            </div>
            <Dialog.Close className="btn btn-quiet -m-2 px-3" aria-label="Put away">
              <X aria-hidden size={20} />
            </Dialog.Close>
          </div>
          <div className="overflow-y-auto p-4" tabIndex={0} role="region" aria-label={title}>
            {children}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
