import type { Metadata } from "next";
import Link from "next/link";
import { LateForm } from "@/features/work/late";
import { getHorse } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { horseCare } from "../../../../../server/horse-care";
import { ladderStates } from "../../../../../server/ladder-state";
import { lastPeople } from "../../../../../server/last-people";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Write a session down" };

export default async function LatePage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const { allowance } = await horseCare(store, horse);
  const [states, who] = await Promise.all([ladderStates(store, horse.id, allowance), lastPeople(store, horse.id)]);
  if (states.length === 0)
    return (
      <p className="text-lg">
        A session needs a ladder.{" "}
        <Link href={`/horses/${horse.id}/shape/new`} className="link">
          Plan one
        </Link>
        .
      </p>
    );
  return (
    <LateForm
      storeId={store.id}
      horse={{ id: horse.id, name: horse.name }}
      ladders={states.map(({ ladder, next }) => ({
        id: ladder.id,
        version: ladder.version,
        name: ladder.behaviour.name,
        rung: next.rung,
        plan: ladder.plan,
      }))}
      {...who}
      nowMs={store.now()}
    />
  );
}
