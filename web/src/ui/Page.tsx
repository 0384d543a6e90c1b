import type { ReactNode } from 'react'
import { useTitle } from '../app/use-title'

const widths = {
  narrow: 'max-w-xl p-4 lg:p-6',
  form: 'max-w-3xl p-4 lg:p-6',
  text: 'max-w-4xl p-4 lg:p-6',
  list: 'max-w-5xl p-4 lg:p-6',
  wide: 'max-w-6xl p-4 lg:p-6',
  full: 'max-w-7xl p-4 lg:p-5'
} as const

/** A page outside a visit, as wide as what stands on it needs. */
export function Page({
  title,
  width,
  children
}: {
  /** In the browser's title; left out where that is said before the page is there. */ title?: string
  width: keyof typeof widths
  children: ReactNode
}) {
  useTitle(title ?? null)
  return <main className={`mx-auto ${widths[width]}`}>{children}</main>
}

/** The heading of a page. */
export function Heading({ children }: { children: ReactNode }) {
  return <h1 className="text-2xl">{children}</h1>
}
