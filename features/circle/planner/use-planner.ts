"use client";

import { useMemo, useReducer, useState } from "react";
import { type CircleOverride, type CirclePlan, circleCaps, planCautions, standingCautions, wornAt } from "@/core/circle";
import { planToLog } from "@/core/events/circle-log";
import type { PlannerStart } from "@/core/start";
import { send, useRequestIds } from "@/ui/form";
import { useWay } from "@/ui/way";
import { beginSession } from "../../device/begin-session";
import { goToSession } from "../../device/go-to-session";
import { changePlan, USUAL_LINES } from "./plan-state";

/** The last one chosen, where it still is there; otherwise nothing is said. */
const stillThere = (last: string | null, list: readonly { readonly id: string }[]) =>
  last !== null && list.some(({ id }) => id === last) ? last : "";
const orNull = (id: string) => (id === "" ? null : id);

/** A plan as it is laid out, judged against the caps at each change, then kept or begun. */
export function usePlanner(start: PlannerStart, storeId: string) {
  const { horse, settings, setup, age, allowance, kit } = start;
  const way = useWay();
  const ids = useRequestIds();
  const [plan, change] = useReducer(changePlan, start.plan);
  const [overrides, setOverrides] = useState<readonly CircleOverride[]>([]);
  const [person, setPerson] = useState(stillThere(start.last.person, start.people));
  const [place, setPlace] = useState(stillThere(start.last.place, start.places));
  const [ladder, setLadder] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const caps = useMemo(
    () => circleCaps({ age, allowance, settings, own: setup.caps, ways: plan.ways, heat: null }),
    [age, allowance, settings, setup.caps, plan.ways],
  );
  const worn = kit.find(({ id }) => id === plan.kit) ?? null;
  const cautions = useMemo(() => {
    const kitWorn = wornAt(worn?.place, plan.kitStage);
    const at = start.places.find(({ id }) => id === place) ?? null;
    return planCautions(plan, caps, { ...start.use, kitWorn }, { age, allowance }, settings, at);
  }, [plan, caps, start.use, worn, age, allowance, settings, start.places, place]);
  const standing = standingCautions(cautions, overrides);
  const whole: CirclePlan = { ...plan, lines: plan.form === "lines" ? (plan.lines ?? USUAL_LINES) : null };

  const begin = async () => {
    setBusy(true);
    setProblem(null);
    const chosen = start.ladders.find(({ id }) => id === ladder);
    // What was written for a caution that no longer stands says nothing.
    const own = overrides
      .filter(({ key, why }) => why.trim() !== "" && cautions.some((one) => one.key === key))
      .map(({ key, why }) => ({ key, why: why.trim() }));
    const asked = {
      horse: horse.id,
      kind: "circle" as const,
      ladder: chosen?.id ?? null,
      person: orNull(person),
      place: orNull(place),
      start_rung: chosen?.rung ?? null,
      kit: plan.kit === null ? [] : [plan.kit],
      circle: { plan: planToLog(whole), overrides: own },
    };
    const id = ids.idFor(asked);
    const begun = await beginSession(storeId, { id, ...asked });
    if (begun.ok) return goToSession(way, begun, `/horses/${horse.id}/work/${id}`);
    setProblem(begun.message);
    setBusy(false);
  };
  const keep = async () => {
    setSaid(null);
    const sent = await send("PUT", `/api/horses/${horse.id}/circle/plan`, { plan: planToLog(whole) });
    setSaid(sent.ok ? "Kept: the next session begins with it, where no ramp runs." : sent.message);
  };
  return {
    plan,
    change,
    caps,
    cautions,
    standing,
    overrides,
    setOverrides,
    person,
    setPerson,
    place,
    setPlace,
    ladder,
    setLadder,
    problem,
    said,
    busy,
    closed: horse.away !== null || standing.length > 0,
    begin,
    keep,
  };
}
