import type { ComponentProps } from 'react'

const looks = {
  plain: '',
  /** The one thing that a screen or a sheet is there for. */
  main: 'btn-plum',
  /** What is rarely wanted, or stands many times in a list. */
  quiet: 'btn-quiet'
} as const

/** Something to press: as tall as a thumb, and no form's submit unless it says so. */
export function Button({
  kind = 'plain',
  className = '',
  type = 'button',
  ...rest
}: ComponentProps<'button'> & { kind?: keyof typeof looks }) {
  return <button type={type} className={['btn', looks[kind], className].filter(Boolean).join(' ')} {...rest} />
}
