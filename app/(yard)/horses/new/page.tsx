import type { Metadata } from "next";
import { HorseForm } from "@/features/know/horse-form";

export const metadata: Metadata = { title: "Add a horse" };

export default function NewHorsePage() {
  return (
    <>
      <h1 className="mb-6 text-[2rem]">Add a horse</h1>
      <HorseForm year={new Date().getFullYear()} />
    </>
  );
}
