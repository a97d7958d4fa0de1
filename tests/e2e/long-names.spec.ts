import { v4 as newId } from "uuid";
import { ask } from "../support/api";
import { emptyDraft } from "../support/plan";
import { SessionWriter } from "../support/session-writer";
import { expect, test } from "./fixtures";

/** Eighty letters without a space: what a form takes for a name. */
const long = (letter: string) => letter.toUpperCase() + letter.repeat(79);
const MOST_PAGES = 120;
/** Pages that are there for each behaviour of the library: a few stand for all. */
const LIBRARY_PAGE = /\/shape\/library\/[^/]+$/;
const MOST_LIBRARY_PAGES = 3;

test("a name of eighty letters without a space makes no page wider than a phone", async ({ page, server }) => {
  test.setTimeout(360_000);
  const { url } = server;
  const make = async (path: string, body: object) => {
    const { status, value } = await ask(url, "POST", path, body);
    expect([path, status]).toEqual([path, 201]);
    return value.id;
  };
  const person = await make("/api/people", { name: long("p"), role: "handler" });
  const place = await make("/api/places", {
    name: long("w"),
    shape: "round",
    length_m: 18,
    width_m: null,
    footing: "sand",
    fence: "",
    items: [],
  });
  const kit = await make("/api/kit", {
    name: long("k"),
    kind: "line",
    length_m: 7,
    mass_g: null,
    buckles_equal: null,
    note: long("n"),
  });
  const horse = await make("/api/horses", {
    name: long("h"),
    kind: long("c"),
    history: long("t"),
    triggers: long("u"),
    born_day: "2015-04-01",
  });
  const draft = emptyDraft();
  const ladders = [];
  for (const letter of ["b", "d"])
    ladders.push(
      await make("/api/ladders", {
        horse,
        behaviour: { ...draft.behaviour, name: long(letter), finished: long("f"), cue: long("v"), why: long("y") },
        plan: draft.plan,
      }),
    );
  await make("/api/chains", { horse, name: long("x"), direction: "forward", links: ladders.map((ladder) => ({ ladder, rung: 1 })) });
  await make(`/api/horses/${horse}/restrictions`, {
    kind: "no-tying",
    amount: null,
    detail: "",
    reason: long("r"),
    given_by: long("g"),
    from_day: null,
    until_day: null,
  });
  const session = newId();
  await make("/api/sessions", { id: session, horse, ladder: ladders[0], person, place, start_rung: 1, kit: [kit] });
  const w = new SessionWriter(session, Date.now() - 600_000);
  w.add(0, "session.start", { horse: long("h"), handler: long("p"), place: long("w"), method: "combined" }, "phone:t");
  w.add(1, "block.start", { block: 1, behaviour: long("b"), ladder: ladders[0], version: 1, rung: 1, side: "L" }, "phone:t");
  for (let i = 2; i < 14; i++) w.add(i, "trial", { outcome: i % 3 === 0 ? "miss" : "met", side: "L", note: long("o") }, "phone:t");
  w.add(15, "note", { text: long("q") }, "phone:t");
  w.add(16, "session.end", {}, "phone:t");
  const { store } = (await ask<{ store: string }>(url, "GET", "/api/clock")).value;
  expect((await ask(url, "POST", "/api/events", { store, recorder: "phone:t", clocks: {}, events: w.events })).status).toBe(200);

  await page.setViewportSize({ width: 390, height: 664 });
  const waiting = ["/", `/horses/${horse}/work/${session}`, `/horses/${horse}/shape/library`];
  const seen = new Set<string>();
  const wide: string[] = [];
  while (waiting.length > 0 && seen.size < MOST_PAGES) {
    const path = waiting.shift() as string;
    const kind = path.replace(/[?#].*/, "");
    if (seen.has(kind)) continue;
    if (LIBRARY_PAGE.test(kind) && [...seen].filter((one) => LIBRARY_PAGE.test(one)).length >= MOST_LIBRARY_PAGES) continue;
    seen.add(kind);
    await page.goto(`${url}${path}`);
    await expect(page.locator("h1, main, [data-pad]").first()).toBeAttached();
    const { over, of, links } = await page.evaluate(() => {
      const over = document.documentElement.scrollWidth - window.innerWidth;
      const right = [...document.querySelectorAll("body *")]
        .filter((one) => one.getBoundingClientRect().right > window.innerWidth + 1 && one.children.length === 0)
        .map((one) => `${one.tagName.toLowerCase()}.${one.className} “${(one.textContent ?? "").slice(0, 24)}”`);
      return {
        over,
        of: over > 0 ? right.slice(0, 3) : [],
        links: [...document.querySelectorAll("a[href^='/']")].map((a) => a.getAttribute("href") ?? ""),
      };
    });
    if (over > 0) wide.push(`${path}: ${over} px too wide: ${of.join("; ")}`);
    for (const link of links)
      if (!link.startsWith("/api") && !seen.has(link.replace(/[?#].*/, "")) && (!link.startsWith("/horses/") || link.includes(horse)))
        waiting.push(link);
  }
  expect(wide).toEqual([]);
  expect(seen.size).toBeGreaterThan(50);
});
