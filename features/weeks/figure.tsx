import Link from "next/link";
import type { ReactNode } from "react";
import { filterText, type PastFilter } from "@/core/past";
import { How } from "@/ui/measure";
import { addressOf, type Kept } from "./span-choice";

/** Where the trials a figure rests on are listed. */
export const restsOn = (horseId: string, filter: PastFilter, span: Kept): string =>
  addressOf(`/horses/${horseId}/review/trials`, { ...span, of: filterText(filter) });

/** One figure: its name, its value, what it supports; opens to how it was computed, its source and the trials it rests on. */
export function Figure({
  label,
  value,
  below,
  how,
  rests,
  testId,
}: {
  label: string;
  value: string;
  below?: ReactNode;
  how: ReactNode;
  rests?: string;
  testId?: string;
}) {
  return (
    <div className="border-b border-hair py-2">
      <div className="flex items-baseline gap-1.5">
        <span className="min-w-0 grow">{label}</span>
        <span className="figures font-head text-xl font-bold whitespace-nowrap" data-testid={testId}>
          {value}
        </span>
        <How of={label}>
          {how}
          {rests !== undefined && (
            <p className="mt-2">
              <Link href={rests} className="link">
                The trials it rests on
              </Link>
            </p>
          )}
        </How>
      </div>
      {below !== undefined && <div className="text-sm text-soft">{below}</div>}
    </div>
  );
}
