// Sets what the modules of Next.js find in its own server, before they are read.
import "next/dist/server/node-environment-baseline.js";

import { workAsyncStorage } from "next/dist/server/app-render/work-async-storage.external.js";
import { isValidElement } from "react";
import { listChains, listLadders, listPlaces, listSessions, listTries, type Store } from "@/store";

type Loaded =
  | { readonly default: (props: never) => unknown }
  | { readonly GET: (request: Request, more: never) => Response | Promise<Response> };

/** Every page that shows what is kept, and what a device asks for, by its address: the page's own code answers, and none beside it. */
export const PAGES: Readonly<Record<string, () => Promise<Loaded>>> = {
  "/": () => import("@/app/(yard)/page"),
  "/bin": () => import("@/app/(yard)/bin/page"),
  "/horses/new": () => import("@/app/(yard)/horses/new/page"),
  "/in-out": () => import("@/app/(yard)/in-out/page"),
  "/kit": () => import("@/app/(yard)/kit/page"),
  "/network": () => import("@/app/(yard)/network/page"),
  "/people": () => import("@/app/(yard)/people/page"),
  "/places": () => import("@/app/(yard)/places/page"),
  "/places/[place]": () => import("@/app/(yard)/places/[place]/page"),
  "/settings": () => import("@/app/(yard)/settings/page"),
  "/store": () => import("@/app/(yard)/store/page"),
  "/moved": () => import("@/app/moved/page"),
  "/horses/[horse]/ahead": () => import("@/app/horses/[horse]/(rooms)/ahead/page"),
  "/horses/[horse]/know": () => import("@/app/horses/[horse]/(rooms)/know/page"),
  "/horses/[horse]/know/connection": () => import("@/app/horses/[horse]/(rooms)/know/connection/page"),
  "/horses/[horse]/know/edit": () => import("@/app/horses/[horse]/(rooms)/know/edit/page"),
  "/horses/[horse]/know/first-look": () => import("@/app/horses/[horse]/(rooms)/know/first-look/page"),
  "/horses/[horse]/know/limits": () => import("@/app/horses/[horse]/(rooms)/know/limits/page"),
  "/horses/[horse]/know/places": () => import("@/app/horses/[horse]/(rooms)/know/places/page"),
  "/horses/[horse]/know/signs": () => import("@/app/horses/[horse]/(rooms)/know/signs/page"),
  "/horses/[horse]/know/touch": () => import("@/app/horses/[horse]/(rooms)/know/touch/page"),
  "/horses/[horse]/review": () => import("@/app/horses/[horse]/(rooms)/review/page"),
  "/horses/[horse]/review/[session]": () => import("@/app/horses/[horse]/(rooms)/review/[session]/page"),
  "/horses/[horse]/review/changes": () => import("@/app/horses/[horse]/(rooms)/review/changes/page"),
  "/horses/[horse]/review/compare": () => import("@/app/horses/[horse]/(rooms)/review/compare/page"),
  "/horses/[horse]/review/load": () => import("@/app/horses/[horse]/(rooms)/review/load/page"),
  "/horses/[horse]/review/moments": () => import("@/app/horses/[horse]/(rooms)/review/moments/page"),
  "/horses/[horse]/review/month": () => import("@/app/horses/[horse]/(rooms)/review/month/page"),
  "/horses/[horse]/review/sides": () => import("@/app/horses/[horse]/(rooms)/review/sides/page"),
  "/horses/[horse]/review/trials": () => import("@/app/horses/[horse]/(rooms)/review/trials/page"),
  "/horses/[horse]/review/try-both": () => import("@/app/horses/[horse]/(rooms)/review/try-both/page"),
  "/horses/[horse]/review/try-both/[try]": () => import("@/app/horses/[horse]/(rooms)/review/try-both/[try]/page"),
  "/horses/[horse]/review/weeks": () => import("@/app/horses/[horse]/(rooms)/review/weeks/page"),
  "/horses/[horse]/shape": () => import("@/app/horses/[horse]/(rooms)/shape/page"),
  "/horses/[horse]/shape/[ladder]": () => import("@/app/horses/[horse]/(rooms)/shape/[ladder]/page"),
  "/horses/[horse]/shape/[ladder]/card": () => import("@/app/horses/[horse]/(rooms)/shape/[ladder]/card/page"),
  "/horses/[horse]/shape/[ladder]/edit": () => import("@/app/horses/[horse]/(rooms)/shape/[ladder]/edit/page"),
  "/horses/[horse]/shape/[ladder]/mend": () => import("@/app/horses/[horse]/(rooms)/shape/[ladder]/mend/page"),
  "/horses/[horse]/shape/[ladder]/versions": () => import("@/app/horses/[horse]/(rooms)/shape/[ladder]/versions/page"),
  "/horses/[horse]/shape/chains/[chain]": () => import("@/app/horses/[horse]/(rooms)/shape/chains/[chain]/page"),
  "/horses/[horse]/shape/chains/new": () => import("@/app/horses/[horse]/(rooms)/shape/chains/new/page"),
  "/horses/[horse]/shape/library": () => import("@/app/horses/[horse]/(rooms)/shape/library/page"),
  "/horses/[horse]/shape/library/[template]": () => import("@/app/horses/[horse]/(rooms)/shape/library/[template]/page"),
  "/horses/[horse]/shape/new": () => import("@/app/horses/[horse]/(rooms)/shape/new/page"),
  "/horses/[horse]/work": () => import("@/app/horses/[horse]/(rooms)/work/page"),
  "/horses/[horse]/work/[session]": () => import("@/app/horses/[horse]/work/[session]/page"),
  "/horses/[horse]/work/circle": () => import("@/app/horses/[horse]/(rooms)/work/circle/page"),
  "/horses/[horse]/work/circle/kit": () => import("@/app/horses/[horse]/(rooms)/work/circle/kit/page"),
  "/horses/[horse]/work/circle/ramp": () => import("@/app/horses/[horse]/(rooms)/work/circle/ramp/page"),
  "/horses/[horse]/work/late": () => import("@/app/horses/[horse]/(rooms)/work/late/page"),
  "/api/find": () => import("@/app/api/find/route"),
  "/api/pack": () => import("@/app/api/pack/route"),
  "/api/pack/[horse]": () => import("@/app/api/pack/[horse]/route"),
};

const isGap = (part: string) => /^\[.*\]$/.test(part);

/** The page an address leads to, a fixed word before a gap, and what stands in its gaps. */
function pageAt(path: string): { readonly page: string; readonly params: Readonly<Record<string, string>> } {
  const parts = path.split("/");
  const [page] = Object.keys(PAGES)
    .filter((one) => one.split("/").length === parts.length && one.split("/").every((part, i) => isGap(part) || part === parts[i]))
    .sort((a, b) => a.split("[").length - b.split("[").length);
  if (page === undefined) throw new Error(`no page is at ${path}`);
  const params = page.split("/").flatMap((part, i) => (isGap(part) ? [[part.slice(1, -1), parts[i] ?? ""] as const] : []));
  return { page, params: Object.fromEntries(params) };
}

const AsyncFunction = (async () => undefined).constructor;

/** What a page sends: its elements as data, with what the server's own parts inside it ask for. */
async function sent(node: unknown): Promise<unknown> {
  if (Array.isArray(node)) return Promise.all(node.map(sent));
  if (node instanceof Map) return sent([...node]);
  if (node instanceof Set) return sent([...node]);
  if (typeof node === "function" || node === undefined) return null;
  if (typeof node !== "object" || node === null) return node;
  if (isValidElement(node)) {
    const { type, props } = node;
    if (type instanceof AsyncFunction) return sent(await (type as (given: unknown) => Promise<unknown>)(props));
    const name = typeof type === "string" ? type : typeof type === "function" ? type.name : "";
    return [name, await sent(props)];
  }
  return Object.fromEntries(await Promise.all(Object.entries(node).map(async ([key, value]) => [key, await sent(value)])));
}

const shared = globalThis as typeof globalThis & { deftStore?: Promise<Store>; deftNetwork?: unknown };
/** The network of a machine that is alone. */
const ALONE = {
  state: () => ({ on: false, addresses: [], host: "yard", joinPort: 80 }),
  turnOn: () => undefined,
  turnOff: () => undefined,
};

async function answered(response: Response): Promise<unknown> {
  if (!response.ok) throw new Error(`${response.status} ${await response.text()}`);
  return response.json();
}

/**
 * Asks a page of a store as a visitor at the machine itself does, and gives what it sends, or the address it leads on to.
 * The pages find their store and their request where the launcher and Next.js put them.
 */
export async function visit(store: Store, address: string): Promise<unknown> {
  const url = new URL(address, "http://127.0.0.1:4310");
  const { page, params } = pageAt(url.pathname);
  const before = { store: shared.deftStore, network: shared.deftNetwork };
  shared.deftStore = Promise.resolve(store);
  shared.deftNetwork = ALONE;
  try {
    const module = await PAGES[page]?.();
    if (module === undefined) throw new Error(page);
    const searchParams = Promise.resolve(Object.fromEntries(url.searchParams));
    const asked = async () =>
      "default" in module
        ? sent(await module.default({ params: Promise.resolve(params), searchParams } as never))
        : answered(await module.GET(new Request(url, { headers: { host: url.host } }), { params: Promise.resolve(params) } as never));
    // Without headers and cookies, as Next.js gives them where a page is made for nobody.
    return await workAsyncStorage.run({ route: page, forceStatic: true } as never, asked);
  } catch (error) {
    const [, , to] = /^NEXT_REDIRECT;(\w+);([^;]+)/.exec(String((error as { digest?: unknown }).digest)) ?? [];
    if (to !== undefined) return `on to ${to}`;
    throw error;
  } finally {
    shared.deftStore = before.store;
    shared.deftNetwork = before.network;
  }
}

/** An address of every page for one horse, by the page: what it has of each thing first, and nothing where it has none. */
export async function addressesFor(store: Store, horse: string): Promise<ReadonlyMap<string, string>> {
  const [ladders, [session], [chain], [place]] = [
    await listLadders(store, horse),
    await listSessions(store, horse, { limit: 1, kind: "work" }),
    await listChains(store, horse),
    await listPlaces(store),
  ];
  const [one] = await listTries(store, horse);
  const things: Readonly<Record<string, string | undefined>> = {
    horse,
    ladder: ladders[0]?.id,
    session: session?.session.id,
    chain: chain?.id,
    place: place?.id,
    try: one?.id,
    template: "first-contact",
  };
  const more: Readonly<Record<string, string>> = {
    "/horses/[horse]/review/weeks": `?ladder=${ladders[0]?.id}`,
    "/horses/[horse]/review/compare": "?by=side",
    "/horses/[horse]/review/trials": "?of=side%3DL",
  };
  const found = new Map<string, string>();
  for (const page of Object.keys(PAGES)) {
    const gaps = [...page.matchAll(/\[(\w+)\]/g)].map(([, name]) => name ?? "");
    if (gaps.some((gap) => things[gap] === undefined)) continue;
    found.set(page, page.replaceAll(/\[(\w+)\]/g, (_, name: string) => things[name] ?? "") + (more[page] ?? ""));
  }
  return found;
}
