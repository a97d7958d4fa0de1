import type { Metadata } from "next";
import { METHODS } from "@/core/ladder";
import { contrastSets, type Past, type PastFilter, trialsFor } from "@/core/past";
import { SIDE_WORDS } from "@/core/words";
import { type ChosenComparison, CompareView, type Dimension } from "@/features/weeks/compare-view";
import { ReviewNav } from "@/features/weeks/review-nav";
import { getHorse, ladderNames, listHorses, listLadders, type Store } from "@/store";
import { findOr404 } from "../../../../../server/find-or-404";
import { type Asked, oneOf, type PastView, pastView, spanIn } from "../../../../../server/past-of";
import { RunningLine } from "../../../../../server/running-line";
import { getStore } from "../../../../../server/store";

export const metadata: Metadata = { title: "Compare" };

const METHOD_WORDS: Readonly<Record<string, string>> = {
  "pressure-release": "release",
  "marker-food": "marker and food",
  combined: "both together",
};
const day = (ms: number) => new Date(ms).toISOString().slice(0, 10);

/** What of a past two sets may differ in: each only where it holds two of it at least. */
function dimensionsOf({ sessions, trials }: Past, names: ReadonlyMap<string, string>): Dimension[] {
  const named = (key: string, name: string, ids: Iterable<string | null>): Dimension => ({
    key,
    name,
    options: [...new Set(ids)].flatMap((id) => (id === null ? [] : [{ value: id, name: names.get(id) ?? id }])),
  });
  const fixed = (
    key: string,
    name: string,
    options: readonly (readonly [string, string])[],
    has: (value: string) => boolean,
  ): Dimension => ({
    key,
    name,
    options: options.flatMap(([value, words]) => (has(value) ? [{ value, name: words }] : [])),
  });
  const past = { sessions, trials };
  const has = (key: keyof PastFilter) => (value: string) => trialsFor(past, { [key]: value }).length > 0;
  const middle = sessions[Math.floor(sessions.length / 2)]?.startedMs ?? 0;
  const rungs = [...new Set(trials.flatMap(({ rung }) => rung ?? []))].sort((a, b) => a - b);
  return [
    {
      key: "session",
      name: "sessions",
      options: sessions.toReversed().map(({ id, startedMs }) => ({ value: id, name: day(startedMs) })),
    },
    fixed(
      "half",
      "earlier and later",
      [
        ["earlier", `before ${day(middle)}`],
        ["later", `from ${day(middle)} on`],
      ],
      () => sessions.length >= 4,
    ),
    { key: "rung", name: "rungs", options: rungs.map((rung) => ({ value: String(rung), name: `rung ${rung}` })) },
    named(
      "handler",
      "handlers",
      trials.map(({ handler }) => handler),
    ),
    named(
      "place",
      "places",
      sessions.map(({ place }) => place),
    ),
    named(
      "kit",
      "kit worn",
      sessions.flatMap(({ kit }) => kit),
    ),
    fixed(
      "method",
      "methods",
      METHODS.map((method) => [method, METHOD_WORDS[method] ?? method]),
      has("method"),
    ),
    named(
      "ladder",
      "behaviours and ways",
      trials.map(({ ladder }) => ladder),
    ),
    fixed(
      "wind",
      "wind or calm",
      [
        ["windy", "wind"],
        ["calm", "calm"],
      ],
      has("wind"),
    ),
    fixed(
      "side",
      "sides",
      [
        ["L", SIDE_WORDS.L],
        ["R", SIDE_WORDS.R],
      ],
      has("side"),
    ),
    fixed(
      "begins",
      "side first",
      [
        ["L", "left first"],
        ["R", "right first"],
      ],
      has("begins"),
    ),
    fixed(
      "rungs",
      "new rung or not",
      [
        ["new", "first session on a rung"],
        ["known", "later ones"],
      ],
      has("rungs"),
    ),
    {
      key: "wrong",
      name: "what a wrong choice met",
      options: [...new Set(sessions.flatMap(({ facts }) => facts.wrongMet))].map((value) => ({ value, name: value })),
    },
  ].filter(({ options }) => options.length >= 2);
}

/** One of two halves of the sessions, as times in a filter. */
const halfFilter = ({ sessions }: Past, which: string): PastFilter => {
  const middle = String(sessions[Math.floor(sessions.length / 2)]?.startedMs ?? 0);
  return which === "earlier" ? { to: middle } : { from: middle };
};

/** The horses that work the same behaviour, to be held against this one. Two questions, whatever the number of horses. */
async function horsesWith(store: Store, name: string): Promise<Dimension> {
  const [horses, ladders] = await Promise.all([listHorses(store), ladderNames(store)]);
  const having = new Set(ladders.filter((ladder) => ladder.name === name).map(({ horseId }) => horseId));
  return {
    key: "horse",
    name: "horses",
    options: horses.filter(({ id }) => having.has(id)).map((one) => ({ value: one.id, name: one.name })),
  };
}

export default async function ComparePage({ params, searchParams }: { params: Promise<{ horse: string }>; searchParams: Promise<Asked> }) {
  const store = await getStore();
  const horse = await findOr404(getHorse(store, (await params).horse));
  const asked = await searchParams;
  const span = spanIn(store, asked);
  const ladders = await listLadders(store, horse.id);
  const ladder = ladders.find(({ id }) => id === oneOf(asked.ladder));
  const view = await pastView(store, horse.id, span, ladder);
  const horses = ladder === undefined ? null : await horsesWith(store, ladder.behaviour.name);
  const dimensions = [...dimensionsOf(view.past, view.names), ...(horses !== null && horses.options.length >= 2 ? [horses] : [])];
  const dimension = dimensions.find(({ key }) => key === oneOf(asked.by)) ?? null;
  const options = dimension?.options ?? [];
  const rung = oneOf(asked.rung) ?? "";
  const given = (which: "a" | "b") => options.find(({ value }) => value === oneOf(asked[which]))?.value;
  const a = given("a") ?? options[0]?.value ?? "";
  const b = given("b") ?? options.find(({ value }) => value !== a)?.value ?? "";
  const rungs = [...new Set(view.past.trials.flatMap((trial) => (ladder === undefined ? [] : (trial.rung ?? []))))].sort((x, y) => x - y);
  const base: PastFilter = { ...(ladder === undefined ? {} : { ladder: ladder.id }), ...(rung === "" ? {} : { rung }) };
  const setOf = async (value: string): Promise<{ readonly filter: PastFilter; readonly view: PastView }> => {
    if (dimension?.key === "half") return { filter: { ...base, ...halfFilter(view.past, value) }, view };
    if (dimension?.key !== "horse") return { filter: { ...base, [dimension?.key ?? ""]: value }, view };
    const other = (await listLadders(store, value)).find(({ behaviour }) => behaviour.name === ladder?.behaviour.name);
    const { ladder: _, ...rest } = base;
    return {
      filter: { ...rest, horse: value, ...(other === undefined ? {} : { ladder: other.id }) },
      view: value === horse.id ? view : await pastView(store, value, span, other),
    };
  };
  const chosen = async (): Promise<ChosenComparison | null> => {
    if (dimension === null || a === "" || b === "") return null;
    const [first, second] = [await setOf(a), await setOf(b)];
    const trials = (set: typeof first) => ({ past: set.view.past, trials: trialsFor(set.view.past, set.filter) });
    return { dimension, a, b, filters: [first.filter, second.filter], contrast: contrastSets(trials(first), trials(second)) };
  };
  return (
    <>
      <RunningLine horseId={horse.id} />
      <ReviewNav horseId={horse.id} here="compare" />
      <CompareView
        horseId={horse.id}
        ladders={ladders.map(({ id, behaviour }) => ({ id, name: behaviour.name }))}
        ladder={ladder?.id ?? null}
        rung={rung}
        rungs={rungs}
        span={span}
        dimensions={dimensions}
        dimension={dimension}
        a={a}
        b={b}
        chosen={await chosen()}
      />
    </>
  );
}
