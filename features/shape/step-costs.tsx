"use client";

import Link from "next/link";
import { useEffect, useState } from "react";
import { send } from "@/ui/form";

interface StepCost {
  readonly rung: number;
  readonly sentence: string;
}

/** What the next rungs may cost this horse, by its own steps so far. Worked out after the page has come; nothing where nothing can be said. */
export function StepCosts({ horseId, ladderId, above }: { horseId: string; ladderId: string; above: number }) {
  const [costs, setCosts] = useState<readonly StepCost[]>([]);
  useEffect(() => {
    let here = true;
    void send<{ rungs: readonly StepCost[] }>("GET", `/api/horses/${horseId}/costs/${ladderId}`).then((sent) => {
      if (here && sent.ok) setCosts(sent.value.rungs);
    });
    return () => {
      here = false;
    };
  }, [horseId, ladderId]);
  const ahead = costs.filter(({ rung }) => rung > above).slice(0, 3);
  if (ahead.length === 0) return null;
  return (
    <section className="mt-6" data-testid="step-costs">
      <h2 className="text-xl">What lies ahead, by its own steps so far</h2>
      <ul className="mt-1">
        {ahead.map(({ rung, sentence }) => (
          <li key={rung}>
            <strong>Rung {rung}</strong>: {sentence}
          </li>
        ))}
      </ul>
      <p className="text-sm">
        <Link href={`/horses/${horseId}/review/changes`} className="link">
          How that is told
        </Link>
      </p>
    </section>
  );
}
