import { headers } from "next/headers";
import { DEMO_TOUR } from "@/demo/tour";
import { Yard } from "@/features/yard/yard";
import { asideCount } from "@/store";
import { getStore } from "../server/store";
import { whoAsks } from "../server/who";
import { yardLines } from "../server/yard-lines";

export default async function YardPage() {
  const store = await getStore();
  const lines = await yardLines(store);
  const sample = new Map(lines.filter((line) => line.sample && line.lookAt !== "").map(({ name, id }) => [name, id]));
  const tour = DEMO_TOUR.flatMap(({ horse, page, title, text }) => {
    const id = sample.get(horse);
    return id === undefined ? [] : [{ href: `/horses/${id}/${page}`, title: `${horse}. ${title}`, text }];
  });
  // A helper has nothing to decide there.
  const waiting = whoAsks({ headers: await headers() }).role === "owner" ? await asideCount(store) : 0;
  return <Yard lines={lines} tour={tour} waiting={waiting} />;
}
