import type { Metadata } from "next";
import type { HorseInput } from "@/core/schemas";
import { HorseForm } from "@/features/know/horse-form";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Edit the horse" };

export default async function EditHorsePage({ params }: { params: Promise<{ horse: string }> }) {
  const { id, name, birth_year, sex, kind, height_cm, mass_kg, history, restrictions } = await findOr404(
    getHorse(await getStore(), (await params).horse),
  );
  return (
    <>
      <h1 className="mb-6 text-[2rem]">Edit {name}</h1>
      <HorseForm
        year={new Date().getFullYear()}
        id={id}
        horse={{ name, birth_year, sex, kind, height_cm, mass_kg, history, restrictions } as HorseInput}
      />
    </>
  );
}
