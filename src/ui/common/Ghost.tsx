/** The house's ghost. */
export function Ghost({ size = 24, className = '' }: { size?: number; className?: string }) {
  return (
    <svg viewBox="0 0 24 24" width={size} height={size} className={className} aria-hidden="true">
      <path d="M4 21V11a8 8 0 0 1 16 0v10l-2.7-2.2-2.6 2.2L12 18.8 9.3 21l-2.6-2.2z" fill="currentColor" />
      <circle cx="9.2" cy="11" r="1.4" fill="var(--ground)" />
      <circle cx="14.8" cy="11" r="1.4" fill="var(--ground)" />
      <path d="M9.5 14.2q2.5 2 5 0" stroke="var(--ground)" strokeWidth="1.2" fill="none" strokeLinecap="round" />
    </svg>
  )
}
