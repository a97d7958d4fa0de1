import type { Metadata } from "next";
import { PlaceEditor } from "@/features/places/editor";

export const metadata: Metadata = { title: "Add a place" };

export default function NewPlacePage() {
  return (
    <>
      <h1 className="mb-6 text-[2rem]">Add a place</h1>
      <PlaceEditor start={{ name: "", shape: "rectangle", length: null, width: null, footing: "", fence: "", items: [] }} />
    </>
  );
}
