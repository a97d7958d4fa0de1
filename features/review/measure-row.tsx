import type { ReactNode } from "react";
import { How } from "@/ui/measure";

/** One number with its words, what it rests on, and how it was computed. */
export function MeasureRow({
  label,
  value,
  below,
  how,
  testId,
}: {
  label: string;
  value: string;
  below?: ReactNode;
  how: ReactNode;
  testId?: string;
}) {
  return (
    <div className="border-b border-hair py-2">
      <div className="flex items-baseline gap-1.5">
        <span className="min-w-0 grow">{label}</span>
        <span className="figures font-head text-xl font-bold whitespace-nowrap" data-testid={testId}>
          {value}
        </span>
        <How of={label}>{how}</How>
      </div>
      {below !== undefined && <div className="text-sm text-soft">{below}</div>}
    </div>
  );
}
