import { describe, expect, it } from "vitest";
import { seededChance } from "../chance";
import { type PlacedSession, type PlacedValue, placeTakenOut } from "./place-out";

const pair = (first: string, second: string, later: number, weight = 1, tookTurns = false): PlacedSession => ({
  inOrder: [
    { what: first, difference: -later, weight },
    { what: second, difference: later, weight },
  ],
  tookTurns,
  kind: "session",
});

/** Sum of what is left for `what` when the weighted mean of its place is taken off, worked out from the order given. */
const sumOf = (sessions: readonly PlacedSession[], orders: readonly (readonly string[])[], what: string): number => {
  const massed = sessions.filter(({ tookTurns }) => !tookTurns);
  const mean = (place: number) => {
    const values = massed.map(({ inOrder }) => inOrder[place] as PlacedValue);
    return values.reduce((sum, one) => sum + one.weight * one.difference, 0) / values.reduce((sum, one) => sum + one.weight, 0);
  };
  return sessions.reduce((sum, { inOrder, tookTurns }, i) => {
    const place = (orders[i] as readonly string[]).indexOf(what);
    const value = inOrder[place] as PlacedValue;
    return sum + value.weight * (value.difference - (tookTurns ? 0 : mean(place)));
  }, 0);
};

/** Every way to hand the orders seen out anew. */
const permutations = <T>(list: readonly T[]): T[][] =>
  list.length < 2 ? [[...list]] : list.flatMap((one, i) => permutations(list.toSpliced(i, 1)).map((rest) => [one, ...rest]));

describe("the place in the session taken out", () => {
  const chance = seededChance(8);
  it.each([0, 1, 2, 3])("is the share of all orders handed out anew, of two things: draw %i", (draw) => {
    const sessions = Array.from({ length: 7 }, () => {
      const [a, b] = chance() < 0.5 ? ["left", "right"] : ["right", "left"];
      return pair(a as string, b as string, chance() - 0.4, 0.5 + chance());
    });
    const seenOrders = sessions.map(({ inOrder }) => inOrder.map(({ what }) => what));
    const seen = Math.abs(sumOf(sessions, seenOrders, "left"));
    const all = permutations(seenOrders);
    const asMuch = all.filter((orders) => Math.abs(sumOf(sessions, orders, "left")) >= seen - 1e-12).length;
    const found = placeTakenOut(sessions, "left");
    expect(found?.p, `${draw}`).toBeCloseTo(asMuch / all.length, 10);
    // Seen from the other side it is the same.
    expect(placeTakenOut(sessions, "right")?.p).toBeCloseTo(found?.p ?? -1, 10);
    expect(placeTakenOut(sessions, "right")?.difference).toBeCloseTo(-(found?.difference ?? 1), 10);
  });

  it("is drawn for three things, and comes near what every order gives", () => {
    const names = ["gate", "middle", "corner"];
    const sessions = Array.from({ length: 6 }, (): PlacedSession => {
      const order = permutations(names)[Math.floor(chance() * 6)] as string[];
      return {
        inOrder: order.map((what) => ({ what, difference: chance() - 0.5 + (what === "gate" ? 0.4 : 0), weight: 1 + chance() })),
        tookTurns: false,
        kind: "zones",
      };
    });
    const seenOrders = sessions.map(({ inOrder }) => inOrder.map(({ what }) => what));
    const seen = Math.abs(sumOf(sessions, seenOrders, "gate"));
    const all = permutations(seenOrders);
    const share = all.filter((orders) => Math.abs(sumOf(sessions, orders, "gate")) >= seen - 1e-12).length / all.length;
    expect(Math.abs((placeTakenOut(sessions, "gate")?.p ?? 2) - share)).toBeLessThan(share > 0.08 ? 0.08 : 0.01);
  });

  it("gives back a difference that was put in, whatever what comes first does", () => {
    // Whatever comes later is 0.3 better; the right is 0.2 better than the left.
    const sessions = Array.from({ length: 12 }, (_, i) =>
      i % 3 === 0 ? pair("right", "left", 0.3 - 0.2) : pair("left", "right", 0.3 + 0.2),
    );
    const found = placeTakenOut(sessions, "right");
    expect(found?.difference).toBeCloseTo(0.2, 10);
    // 4 of 12 the other way round: 1 − (1/3)².
    expect(found?.kept).toBeCloseTo(1 - 1 / 9, 10);
  });

  it("leaves nothing over where the order never varied, and knows what was not compared", () => {
    const always = Array.from({ length: 30 }, (_, i) => pair("left", "right", 0.3 + i / 100));
    expect(placeTakenOut(always, "left")).toEqual({ n: 30, difference: null, p: 1, kept: 0 });
    expect(placeTakenOut(always, "gate")).toBeNull();
    expect(placeTakenOut([], "left")).toBeNull();
    // Days of one kind do not change orders with sessions of another.
    const kinds = always.map((session, i) => (i % 2 === 0 ? { ...pair("right", "left", -0.3), kind: "days" } : session));
    expect(placeTakenOut(kinds, "left")?.kept).toBe(0);
  });

  it("turns the values of what took turns about within the session, as signs are", () => {
    const sessions = [0.2, 0.1, 0.4, 0.3, -0.1].map((later) => pair("left", "right", later, 1, true));
    // Of 32 patterns of signs those with a sum of 0.9 or more, and their mirrors: 1.1 once, 0.9 twice.
    expect(placeTakenOut(sessions, "right")).toMatchObject({ n: 5, p: 6 / 32, kept: 1 });
    expect(placeTakenOut(sessions, "right")?.difference).toBeCloseTo(0.18, 12);
  });
});
