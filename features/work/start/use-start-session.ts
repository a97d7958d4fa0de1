"use client";

import { useState } from "react";
import { useRequestIds } from "@/ui/form";
import { useWay } from "@/ui/way";
import { beginSession } from "../../device/begin-session";
import { goToSession } from "../../device/go-to-session";
import type { Chosen } from "./choose-or-name";

/** What is to be begun. */
export interface ToBegin {
  readonly ladder: { readonly id: string; readonly rung: number } | null;
  readonly person: Chosen;
  readonly place: Chosen;
  readonly kit: ReadonlySet<string>;
}

/** Begins a session of work, and says why where it cannot be. */
export function useStartSession(horseId: string, storeId: string, oneRuns: boolean) {
  const way = useWay();
  const ids = useRequestIds();
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  // One running session is gone on with; a second is not begun unasked.
  const [running, setRunning] = useState(oneRuns);
  // A cap on circling that is used up asks for a word of why.
  const [capped, setCapped] = useState(false);
  const [against, setAgainst] = useState("");

  const begin = async ({ ladder, person, place, kit }: ToBegin) => {
    setBusy(true);
    setProblem(null);
    const why = against.trim();
    const asked = {
      horse: horseId,
      kind: "work" as const,
      ladder: ladder?.id ?? null,
      person: person.id,
      place: place.id,
      start_rung: ladder?.rung ?? null,
      kit: [...kit],
      ...(person.name === "" ? {} : { person_name: person.name }),
      ...(place.name === "" ? {} : { place_name: place.name }),
      ...(why === "" ? {} : { against: why }),
    };
    const id = ids.idFor({ ...asked, beside: running });
    const begun = await beginSession(storeId, { id, ...asked }, { beside: running });
    if (begun.ok) return goToSession(way, begun, `/horses/${horseId}/work/${id}`);
    if (begun.code === "session-running") setRunning(true);
    if (begun.code === "circling-cap") setCapped(true);
    setProblem(begun.message);
    setBusy(false);
  };
  return { begin, problem, busy, running, capped, against, setAgainst };
}
