import type { ReactNode } from "react";

/** A labelled field with its hint and its error, tied together for screen readers. */
export function Field({
  id,
  label,
  hint,
  error,
  children,
}: {
  id: string;
  label: string;
  hint?: string;
  error?: string;
  children: ReactNode;
}) {
  return (
    <div className="min-w-0">
      <label htmlFor={id} className="mb-1 block font-semibold">
        {label}
      </label>
      {children}
      {hint !== undefined && error === undefined && (
        <p id={`${id}-hint`} className="mt-1 text-sm text-soft">
          {hint}
        </p>
      )}
      {error !== undefined && (
        <p id={`${id}-error`} role="alert" className="mt-1 text-sm font-semibold text-brick">
          {error}
        </p>
      )}
    </div>
  );
}

/** What an input needs to be tied to its {@link Field}. */
export const tied = (id: string, error: string | undefined) => ({
  id,
  "aria-invalid": error !== undefined,
  "aria-describedby": error === undefined ? `${id}-hint` : `${id}-error`,
});
