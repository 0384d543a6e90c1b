/** A signature as it was drawn. */
export function Strokes({ path }: { path: string }) {
  return (
    <svg viewBox="0 0 600 200" className="mt-2 w-full bg-[#FBF8F1]" role="img" aria-label="Signature">
      <path d={path} fill="none" stroke="#1D1822" strokeWidth="4" strokeLinecap="round" strokeLinejoin="round" />
    </svg>
  )
}
