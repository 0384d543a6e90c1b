import type { ComponentProps, ReactNode } from 'react'

/** What is asked for, over the box that it is put into. Tied to it by lying around it. */
export function Field({
  label,
  className = '',
  children,
  ...rest
}: Omit<ComponentProps<'label'>, 'label' | 'htmlFor'> & { label: ReactNode }) {
  return (
    <label className={`label [&>.box]:mt-1 [&>.box]:font-normal ${className}`.trim()} {...rest}>
      {label}
      {children}
    </label>
  )
}

const box = (exact: boolean, className: string) => `box ${exact ? 'exact ' : ''}${className}`.trim()

/** A box to type into; `exact` where every character counts. */
export function Input({ exact = false, className = '', ...rest }: ComponentProps<'input'> & { exact?: boolean }) {
  return <input className={box(exact, className)} {...rest} />
}

/** A box to choose from a list in. */
export function Select({ exact = false, className = '', ...rest }: ComponentProps<'select'> & { exact?: boolean }) {
  return <select className={box(exact, className)} {...rest} />
}

/** A box of several lines. */
export function TextArea({ exact = false, className = '', ...rest }: ComponentProps<'textarea'> & { exact?: boolean }) {
  return <textarea className={box(exact, className)} {...rest} />
}
