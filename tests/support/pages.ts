import { chainStandings } from "@/app/server/chain-facts";
import { loadOf } from "@/app/server/circle-of";
import { horseCare } from "@/app/server/horse-care";
import { horsePicture } from "@/app/server/horse-picture";
import { ladderState, ladderStates } from "@/app/server/ladder-state";
import { lastPeople } from "@/app/server/last-people";
import { circlePack, horsePack, yardFacts } from "@/app/server/pack";
import { pastView, plansIn, spanIn } from "@/app/server/past-of";
import { editorSurroundings, foundationsFor } from "@/app/server/shape-facts";
import { sidesIn } from "@/app/server/sides-of";
import { stallsOf } from "@/app/server/stalls-of";
import { triesOf } from "@/app/server/tries";
import { yardLines } from "@/app/server/yard-lines";
import { plannerStart } from "@/core/start";
import { MILLISECONDS_PER_DAY } from "@/core/units";
import {
  accessOfPeople,
  asBehaviour,
  digestsOfHorse,
  getHorse,
  getLadder,
  hoursByKind,
  ladderNames,
  lastWorkedMs,
  listBin,
  listChains,
  listHorses,
  listLadders,
  listPeople,
  listSessions,
  listSignIns,
  listVersions,
  loadSession,
  newestEvidence,
  openSessions,
  pastOfHorse,
  rungEvidence,
  rungEvidenceByVersion,
  type Store,
} from "@/store";

/** What each page asks the store, by the functions it is made of. */
export const pagesOf = (store: Store, nowMs: number): Readonly<Record<string, (horse: string) => Promise<unknown>>> => ({
  yard: () => yardLines(store),
  pack: async () => [await yardFacts(store), await listHorses(store), await listSignIns(store)],
  network: async () => [await listPeople(store), await accessOfPeople(store), await listSignIns(store)],
  find: async () => [await listHorses(store), await ladderNames(store)],
  layout: async (id) => [await getHorse(store, id), await openSessions(store, id)],
  know: async (id) => {
    const row = await getHorse(store, id);
    const { allowance } = await horseCare(store, row);
    return [await horsePicture(store, row), await ladderStates(store, id, allowance, "all")];
  },
  shape: async (id) => {
    const { allowance } = await horseCare(store, await getHorse(store, id));
    return [
      await ladderStates(store, id, allowance),
      await listLadders(store, id),
      await chainStandings(store, id, await listChains(store, id)),
    ];
  },
  ladder: async (id) => {
    const [ladder] = await listLadders(store, id);
    if (ladder === undefined) return null;
    const { allowance } = await horseCare(store, await getHorse(store, id));
    return [
      await rungEvidence(store, ladder, ladder.version),
      await ladderState(store, ladder, allowance, {}, "all"),
      await foundationsFor(store, id, asBehaviour(ladder.behaviour)),
    ];
  },
  editor: async (id) => {
    const [ladder] = await listLadders(store, id);
    if (ladder === undefined) return null;
    return [await newestEvidence(store, await getLadder(store, ladder.id), 1000), await editorSurroundings(store, id, ladder)];
  },
  versions: async (id) => {
    const [ladder] = await listLadders(store, id);
    return ladder === undefined ? null : [await listVersions(store, ladder.id), await rungEvidenceByVersion(store, ladder)];
  },
  circle: async (id) => {
    const row = await getHorse(store, id);
    return plannerStart(await horsePack(store, row), await yardFacts(store), nowMs);
  },
  load: async (id) => [await loadOf(store, id), await circlePack(store, await getHorse(store, id)), await yardFacts(store)],
  work: async (id) => {
    const row = await getHorse(store, id);
    return [await horsePack(store, row), await yardFacts(store)];
  },
  late: (id) => lastPeople(store, id),
  recorder: async (id) => {
    const row = await getHorse(store, id);
    const [last] = await listSessions(store, id, { limit: 1, kind: "work" });
    if (last === undefined) return null;
    return [await loadSession(store, last.session.id), await horsePack(store, row), await yardFacts(store)];
  },
  "review list": (id) => listSessions(store, id, { limit: 51, after: { createdMs: nowMs, no: 1e9 } }),
  review: async (id) => {
    const [last] = await listSessions(store, id, { limit: 1, kind: "work" });
    if (last === undefined) return null;
    const { allowance } = await horseCare(store, await getHorse(store, id));
    const [ladder] = (await listLadders(store, id)).filter((one) => one.id === last.session.ladder_id);
    const digests = await digestsOfHorse(store, id, nowMs - 180 * MILLISECONDS_PER_DAY);
    return [
      await loadSession(store, last.session.id),
      ladder === undefined ? null : await ladderState(store, ladder, allowance, { sides: sidesIn(digests) }),
    ];
  },
  "over weeks": async (id) => {
    const [ladder] = await listLadders(store, id);
    return [
      await lastWorkedMs(store, 0),
      ladder === undefined ? null : await pastView(store, id, spanIn({ now: () => nowMs, timeZone: store.timeZone }, {}), ladder),
    ];
  },
  sides: (id) => pastView(store, id, spanIn({ now: () => nowMs, timeZone: store.timeZone }, {})),
  compare: (id) => pastView(store, id, spanIn({ now: () => nowMs, timeZone: store.timeZone }, {})),
  trials: (id) => pastView(store, id, spanIn({ now: () => nowMs, timeZone: store.timeZone }, {})),
  changes: async (id) => {
    const { past, ladders } = await pastView(store, id, spanIn({ now: () => nowMs, timeZone: store.timeZone }, { span: "365" }));
    return [await plansIn(store, past), await stallsOf(store, await getHorse(store, id), past, ladders)];
  },
  moments: (id) => pastView(store, id, spanIn({ now: () => nowMs, timeZone: store.timeZone }, { span: "91" })),
  "try both": async (id) => {
    const ladders = await listLadders(store, id);
    return [await triesOf(store, id, ladders), await pastOfHorse(store, id, { fromMs: nowMs - 91 * MILLISECONDS_PER_DAY, ladders })];
  },
  month: async (id) => [
    await pastView(store, id, spanIn({ now: () => nowMs, timeZone: store.timeZone }, { span: "91" })),
    await hoursByKind(store, id, nowMs - 31 * MILLISECONDS_PER_DAY, nowMs),
    await horseCare(store, await getHorse(store, id)),
  ],
  ahead: async (id) => ladderStates(store, id, (await horseCare(store, await getHorse(store, id))).allowance),
  bin: () => listBin(store),
});
