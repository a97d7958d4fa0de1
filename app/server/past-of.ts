import "server-only";
import type { LadderPlan } from "@/core/ladder";
import { type Past, type PastSpan, type PlanOf, spanOf } from "@/core/past";
import { listKit, listLadders, listPeople, listPlaces, pastOfHorse, plansOf, type Store, type StoredLadder } from "@/store";

/** What stands in the address of a page, once. */
export type Asked = Readonly<Record<string, string | string[] | undefined>>;

export const oneOf = (value: string | string[] | undefined): string | undefined => (Array.isArray(value) ? value[0] : value);

/** What an address says of the span. */
export const spanIn = (store: Pick<Store, "now" | "timeZone">, asked: Asked, usual?: string): PastSpan =>
  spanOf({ span: oneOf(asked.span), from: oneOf(asked.from), to: oneOf(asked.to) }, store.now(), store.timeZone, usual);

/** Names of people, places and kit by id, and of the horse's ladders. */
export async function pastNames(store: Store, ladders: readonly StoredLadder[]): Promise<ReadonlyMap<string, string>> {
  const [people, places, kit] = await Promise.all([listPeople(store), listPlaces(store), listKit(store)]);
  return new Map([
    ...[...people, ...places, ...kit].map(({ id, name }) => [id, name] as const),
    ...ladders.map(({ id, behaviour }) => [id, behaviour.name] as const),
  ]);
}

/** A horse's past of a span, with its ladders and the names in it. */
export interface PastView {
  readonly span: PastSpan;
  readonly past: Past;
  readonly ladders: readonly StoredLadder[];
  readonly names: ReadonlyMap<string, string>;
}

/** @param ladder only this one's trials. */
export async function pastView(store: Store, horseId: string, span: PastSpan, ladder?: StoredLadder): Promise<PastView> {
  const ladders = await listLadders(store, horseId);
  const [past, names] = await Promise.all([
    pastOfHorse(store, horseId, {
      fromMs: span.fromMs,
      toMs: span.toMs,
      ladders: ladder === undefined ? ladders : [ladder],
      ...(ladder === undefined ? {} : { only: "these ladders" as const }),
    }),
    pastNames(store, ladders),
  ]);
  return { span, past, ladders, names };
}

/** The plans of every version that was worked in a past: one question. */
export async function plansIn(store: Store, { trials }: Past): Promise<PlanOf> {
  const wanted = new Map<string, { ladder: string; version: number }>();
  for (const { ladder, version } of trials)
    if (ladder !== null && version !== null) wanted.set(`${version} ${ladder}`, { ladder, version });
  const plans = new Map<string, LadderPlan>(
    (await plansOf(store, [...wanted.values()])).map(({ ladder, version, plan }) => [`${version} ${ladder}`, plan]),
  );
  return (ladder, version) => plans.get(`${version} ${ladder}`);
}
