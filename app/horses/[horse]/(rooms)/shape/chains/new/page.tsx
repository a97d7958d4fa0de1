import type { Metadata } from "next";
import Link from "next/link";
import { ChainForm } from "@/features/shape/chains/chain-form";
import { getHorse } from "@/store";
import { linkChoices } from "../../../../../../server/chain-facts";
import { findOr404 } from "../../../../../../server/find-or-404";
import { getStore } from "../../../../../../server/store";

export const metadata: Metadata = { title: "Chain behaviours" };

export default async function NewChainPage({ params }: { params: Promise<{ horse: string }> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const choices = await linkChoices(store, horse.id);
  return (
    <>
      <h1 className="text-[2rem]">Chain behaviours</h1>
      <p className="mt-1 mb-5 max-w-prose text-soft">
        One behaviour after another as a whole: walk up, on, stand, come out when asked. Each link keeps its own ladder and its own rule.
      </p>
      {choices.length < 2 ? (
        <p className="text-lg">
          A chain needs two ladders.{" "}
          <Link href={`/horses/${horse.id}/shape/library`} className="link">
            Plan another one first
          </Link>
          .
        </p>
      ) : (
        <ChainForm
          horseId={horse.id}
          start={{
            name: "",
            direction: "forward",
            links: choices.slice(0, 2).map(({ id, rungs }) => ({ ladder: id, rung: rungs.length })),
          }}
          choices={choices}
        />
      )}
    </>
  );
}
