/** What somebody may do: everything, or log and read; null where nobody is signed in. */
export type Role = "owner" | "helper" | null;

/** Who is needed at the least. */
type Least = "anyone" | "helper" | "owner";

const READ = { GET: "helper" } as const;
const OWNERS = { GET: "owner" } as const;

/**
 * Every route and page with who may ask for it, in one place: the gate in
 * front of the program goes by this and by nothing else, and what is not here
 * is an owner's. A helper logs and reads; deleting, restoring, plans, people
 * and settings are the owner's.
 */
export const RIGHTS: Readonly<Record<string, Readonly<Partial<Record<string, Least>>>>> = {
  // Pages that hold no data.
  "/pen": { GET: "anyone" },
  "/sign-in": { GET: "anyone" },
  "/not-allowed": { GET: "anyone" },
  // Pages.
  "/": READ,
  "/moved": READ,
  "/remote": READ,
  "/join": READ,
  "/kit": READ,
  "/people": READ,
  "/places": READ,
  "/places/new": OWNERS,
  "/places/[place]": OWNERS,
  "/settings": READ,
  "/bin": OWNERS,
  "/store": OWNERS,
  "/in-out": OWNERS,
  "/network": OWNERS,
  "/horses/new": OWNERS,
  "/horses/[horse]/ahead": READ,
  "/horses/[horse]/know": READ,
  "/horses/[horse]/know/connection": READ,
  "/horses/[horse]/know/edit": OWNERS,
  "/horses/[horse]/know/first-look": READ,
  "/horses/[horse]/know/limits": READ,
  "/horses/[horse]/know/places": READ,
  "/horses/[horse]/know/signs": READ,
  "/horses/[horse]/know/touch": READ,
  "/horses/[horse]/review": READ,
  "/horses/[horse]/review/changes": READ,
  "/horses/[horse]/review/compare": READ,
  "/horses/[horse]/review/moments": READ,
  "/horses/[horse]/review/load": READ,
  "/horses/[horse]/review/month": READ,
  "/horses/[horse]/review/sides": READ,
  "/horses/[horse]/review/trials": READ,
  "/horses/[horse]/review/try-both": READ,
  "/horses/[horse]/review/try-both/[try]": READ,
  "/horses/[horse]/review/weeks": READ,
  "/horses/[horse]/review/[session]": READ,
  "/horses/[horse]/shape": READ,
  "/horses/[horse]/shape/new": OWNERS,
  "/horses/[horse]/shape/library": READ,
  "/horses/[horse]/shape/library/[template]": READ,
  "/horses/[horse]/shape/chains/new": OWNERS,
  "/horses/[horse]/shape/chains/[chain]": READ,
  "/horses/[horse]/shape/[ladder]": READ,
  "/horses/[horse]/shape/[ladder]/card": READ,
  "/horses/[horse]/shape/[ladder]/edit": OWNERS,
  "/horses/[horse]/shape/[ladder]/mend": OWNERS,
  "/horses/[horse]/shape/[ladder]/versions": READ,
  "/horses/[horse]/work": READ,
  "/horses/[horse]/work/circle": READ,
  "/horses/[horse]/work/circle/kit": READ,
  "/horses/[horse]/work/circle/ramp": READ,
  "/horses/[horse]/work/late": READ,
  "/horses/[horse]/work/[session]": READ,
  // Signing in.
  "/api/sign-in": { POST: "anyone" },
  "/api/me": { GET: "anyone" },
  "/api/sign-out": { POST: "helper" },
  // Logging and reading.
  "/api/clock": READ,
  "/api/events": { POST: "helper" },
  "/api/find": READ,
  "/api/join": { POST: "helper" },
  "/api/pack": READ,
  "/api/pack/[horse]": READ,
  "/api/signs": { POST: "owner", DELETE: "owner" },
  "/api/sessions": { POST: "helper" },
  "/api/sessions/[id]": READ,
  "/api/sessions/[id]/code": { POST: "helper" },
  "/api/sessions/[id]/events": READ,
  "/api/sessions/[id]/live": READ,
  "/api/sessions/[id]/events.csv": READ,
  "/api/sessions/[id]/sessions.csv": READ,
  "/api/sessions/[id]/trials.csv": READ,
  // The owner's.
  "/api/sessions/[id]/put-right": { POST: "owner" },
  "/api/bin": { POST: "owner" },
  "/api/bin/what": OWNERS,
  "/api/chains": { POST: "owner" },
  "/api/chains/[id]": { PUT: "owner", DELETE: "owner" },
  "/api/horses": { POST: "owner" },
  "/api/horses/[id]": { PUT: "owner" },
  "/api/horses/[id]/away": { PUT: "owner", DELETE: "owner" },
  "/api/horses/[id]/photo": { GET: "helper", PUT: "owner", DELETE: "owner" },
  "/api/horses/[id]/circle": { PUT: "owner" },
  "/api/horses/[id]/circle/plan": { PUT: "owner" },
  "/api/horses/[id]/fits/[kit]": { PUT: "owner" },
  "/api/horses/[id]/load": { POST: "owner" },
  "/api/horses/[id]/load/[entry]": { DELETE: "owner" },
  "/api/horses/[id]/resting": { PUT: "owner" },
  "/api/horses/[id]/signs": { PUT: "owner" },
  "/api/horses/[id]/restrictions": { POST: "owner" },
  "/api/horses/[id]/restrictions/[restriction]": { PUT: "owner", POST: "owner" },
  "/api/horses/[id]/restrictions/[restriction]/against": { POST: "owner", DELETE: "owner" },
  "/api/horses/[id]/dates": { POST: "owner" },
  "/api/horses/[id]/dates/[date]": { POST: "owner", DELETE: "owner" },
  "/api/horses/[id]/tries": { POST: "owner" },
  "/api/horses/[id]/tries/[try]": { POST: "owner" },
  "/api/horses/[id]/files/[file]": READ,
  "/api/horses/[id]/costs/[ladder]": READ,
  "/api/imports": { POST: "owner" },
  "/api/imports/[id]": { GET: "owner", PUT: "owner", POST: "owner", DELETE: "owner" },
  "/api/package": OWNERS,
  "/api/kit": { POST: "owner" },
  "/api/kit/[id]": { PUT: "owner", DELETE: "owner" },
  "/api/ladders": { POST: "owner" },
  "/api/ladders/[id]": { PUT: "owner" },
  "/api/ladders/[id]/away": { PUT: "owner" },
  "/api/network": { GET: "owner", PUT: "owner" },
  "/api/people": { POST: "owner" },
  "/api/people/[id]": { PUT: "owner" },
  "/api/people/[id]/access": { PUT: "owner" },
  "/api/people/[id]/practice": { POST: "owner" },
  "/api/places": { POST: "owner" },
  "/api/places/[id]": { PUT: "owner", DELETE: "owner" },
  "/api/sample": { DELETE: "owner" },
  "/api/settings/word": { PUT: "owner" },
  "/api/sign-ins/[id]": { DELETE: "owner" },
  "/api/store": { GET: "owner", PUT: "owner" },
  "/api/store/aside": { POST: "owner" },
  "/api/store/backup": { POST: "owner" },
  "/api/store/restore": { POST: "owner" },
};

/** Files of the program itself: they hold no data, and a device needs them before anybody signs in. */
const OPEN_FILES = /^\/(?!.*\.\.)(_next\/static\/[\w./~[\]()@-]+|icons\/[\w.-]+|sw\.js|listen\.js|icon\.svg|manifest\.webmanifest)$/;

const patterns = Object.keys(RIGHTS)
  .map((pattern) => ({ pattern, segments: pattern.split("/") }))
  // A name comes before whatever stands for any.
  .sort((a, b) => a.segments.filter((one) => one.startsWith("[")).length - b.segments.filter((one) => one.startsWith("[")).length);

/** The route or page of an address, as it stands in the table; null where it is none. @example routeOf("/horses/h/work") // "/horses/[horse]/work" */
export function routeOf(path: string): string | null {
  const asked = path.length > 1 && path.endsWith("/") ? path.slice(0, -1).split("/") : path.split("/");
  const found = patterns.find(
    ({ segments }) =>
      segments.length === asked.length && segments.every((one, i) => (one.startsWith("[") ? asked[i] !== "" : one === asked[i])),
  );
  return found?.pattern ?? null;
}

/** What is answered to who asks: let in, sent to sign in, or refused. */
export type Entry = "in" | "sign in" | "refused";

/**
 * Whether somebody may ask for an address. What is not in the table is an
 * owner's, so that a route nobody thought of is open to nobody else.
 */
export function mayEnter(role: Role, method: string, path: string): Entry {
  if ((method === "GET" || method === "HEAD") && OPEN_FILES.test(path)) return "in";
  const route = routeOf(path);
  const least = (route === null ? undefined : RIGHTS[route]?.[method === "HEAD" ? "GET" : method]) ?? "owner";
  if (least === "anyone" || role === "owner") return "in";
  // A role this program does not know, from a newer store or a slip, may do nothing.
  if (role !== "helper") return "sign in";
  return least === "helper" ? "in" : "refused";
}
