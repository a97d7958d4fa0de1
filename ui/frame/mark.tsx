/** The app's mark: a line with one hitch in it. */
export function Mark({ className = "" }: { className?: string }) {
  return (
    <svg viewBox="0 0 44 26" className={className} aria-hidden="true">
      <path
        d="M2 13 H15 C22 13 27 3 22 3 C16 3 16 23 22 23 C28 23 30 13 27 9 M23 13 H42"
        fill="none"
        stroke="var(--tarn)"
        strokeWidth="3.4"
        strokeLinecap="round"
      />
    </svg>
  );
}
