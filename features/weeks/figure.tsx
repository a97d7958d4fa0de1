import Link from "next/link";
import type { ComponentProps, ReactNode } from "react";
import { filterText, type PastFilter } from "@/core/past";
import { How } from "@/ui/measure";
import { MeasureRow } from "../review/measure-row";
import { type AddressKeys, addressOf } from "./span-choice";

/** Where the trials a figure rests on are listed. */
export const restsOn = (horseId: string, filter: PastFilter, span: AddressKeys): string =>
  addressOf(`/horses/${horseId}/review/trials`, { ...span, of: filterText(filter) });

const RestsLink = ({ href, children = "The trials it rests on" }: { href: string; children?: ReactNode }) => (
  <p className="mt-2">
    <Link href={href} className="link">
      {children}
    </Link>
  </p>
);

/** One figure: its name, its value, what it supports; opens to how it was computed, its source and the trials it rests on. */
export function Figure({ rests, how, ...row }: ComponentProps<typeof MeasureRow> & { rests: string }) {
  return (
    <MeasureRow
      {...row}
      how={
        <>
          {how}
          <RestsLink href={rests} />
        </>
      }
    />
  );
}

/** The head of a part that says one thing: opens to how it is told, and to the trials it rests on. */
export function ToldHead({
  title,
  of,
  rests,
  restsWords,
  children,
}: {
  title: string;
  of: string;
  rests?: string;
  restsWords?: string;
  children: ReactNode;
}) {
  return (
    <h2 className="flex items-baseline gap-2 text-xl">
      {title}
      <How of={of}>
        {children}
        {rests !== undefined && <RestsLink href={rests}>{restsWords}</RestsLink>}
      </How>
    </h2>
  );
}
