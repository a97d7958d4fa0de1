/** The end of a form: save, leave it, and what went wrong. */
export function FormEnd({ label, busy, problem, onLeave }: { label: string; busy: boolean; problem: string | null; onLeave?: () => void }) {
  return (
    <div className="col-span-full flex flex-wrap items-center gap-4">
      <button type="submit" className="act" disabled={busy}>
        {label}
      </button>
      {onLeave !== undefined && (
        <button type="button" className="act-quiet" onClick={onLeave}>
          Leave it
        </button>
      )}
      {problem !== null && (
        <p role="alert" className="font-semibold text-brick">
          {problem}
        </p>
      )}
    </div>
  );
}
