import type { Metadata } from "next";
import { HorseForm } from "@/features/know/horse-form";
import { today } from "../../../server/horse-care";
import { getStore } from "../../../server/store";

export const metadata: Metadata = { title: "Add a horse" };

export default async function NewHorsePage() {
  const store = await getStore();
  return (
    <>
      <h1 className="mb-6 text-[2rem]">Add a horse</h1>
      <HorseForm today={today(store)} />
    </>
  );
}
