import type { Metadata } from "next";
import Link from "next/link";
import { HorseForm } from "@/features/know/horse-form";
import { Photo } from "@/features/know/photo";
import { getHorse, photoChangedMs } from "@/store";
import { BinButton } from "@/ui/form";
import { findOr404 } from "../../../../../server/find-or-404";
import { today } from "../../../../../server/horse-care";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Edit the horse" };

export default async function EditHorsePage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const changedMs = await photoChangedMs(store, horse.id);
  const {
    id,
    sample: _sample,
    created_ms: _created,
    away: _away,
    away_since: _since,
    away_note: _note,
    binned_ms: _binned,
    binned_with: _with,
    ...fields
  } = horse;
  // Where the day of birth is known it says the year; the field stays free for a change of the day.
  const shown = { ...fields, birth_year: fields.born_day === null ? fields.birth_year : null };
  return (
    <>
      <h1 className="mb-6 text-[2rem]">Edit {horse.name}</h1>
      <Photo horseId={id} name={horse.name} changedMs={changedMs} />
      <HorseForm today={today(store)} id={id} horse={shown} />
      <p className="mt-10 border-t-2 border-hair pt-4 text-soft">
        A horse that is only out of work is put away under{" "}
        <Link href={`/horses/${id}/know/limits`} className="link">
          Limits
        </Link>
        . <BinButton kind="horse" id={id} name={horse.name} onwards="/" />
      </p>
    </>
  );
}
