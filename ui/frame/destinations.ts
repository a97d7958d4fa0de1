import { defaultFilter } from "cmdk";

/** A page somebody may look for: its name, what it is for, and what people call it. */
export interface Destination {
  /** Behind the horse's address for a page of a horse; the whole address for one of the yard. */
  readonly path: string;
  readonly label: string;
  readonly hint: string;
  /** Everyday names it is looked for by, beside its own. */
  readonly also: string;
}

const page = (path: string, label: string, hint: string, also: string): Destination => ({ path, label, hint, also });

/** The pages of one horse beside its five rooms. */
export const HORSE_PAGES: readonly Destination[] = [
  page("/know/first-look", "First look", "twelve things, asked once", "assessment new horse test what it knows evaluation"),
  page("/know/touch", "Body", "where it may be touched", "body map touch handling ticklish grooming clipping desensitise"),
  page("/know/places", "Where it works easier", "zones, easier and harder", "places zones corner gate spooky arena relief"),
  page("/know/connection", "Goes to", "what it looks at and goes to", "connection attention focus liberty looks at me"),
  page("/know/signs", "Signs", "calm, tension and breathing", "stress calm relaxation breathing respiration watch observe resting rate"),
  page(
    "/know/limits",
    "Limits",
    "what is closed, and dates",
    "restrictions vet veterinarian injury lame lameness trim farrier hoof hooves dates physio saddle fitter rest",
  ),
  page("/know/edit", "About this horse", "name, age, picture", "photo picture birthday age breed sex rename edit"),
  page("/shape/library", "Library", "behaviours to begin from", "behaviours exercises ideas teach lessons templates"),
  page("/shape/new", "Plan a ladder", "a behaviour of your own", "new blank plan exercise goal steps"),
  page("/shape/chains/new", "Chain behaviours", "one after the other", "chain sequence routine pattern course"),
  page("/work/circle", "Circle work", "by a plan and a clock", "lunge lunging longe circling round pen long lines reining driving"),
  page(
    "/work/circle/ramp",
    "Ramp and caps",
    "building up, week by week",
    "fitness conditioning build up back to work rehab minutes allowed limit",
  ),
  page("/work/circle/kit", "Kit and fit", "what is worn on the circle", "cavesson surcingle side reins roller harness fit tack"),
  page("/work/late", "Write a session down", "from memory or paper", "late forgot yesterday paper afterwards add a session"),
  page("/review/weeks", "Over weeks", "what moved, and how surely", "progress trend chart graph history"),
  page("/review/sides", "Sides", "left and right", "weaker side stiff crooked one-sided asymmetry"),
  page("/review/compare", "Compare", "any two sets of asks", "difference versus wind morning handler place"),
  page("/review/trials", "Trials", "every ask of a span, one by one", "asks rows table list single"),
  page("/review/try-both", "Try both", "two ways, in turns", "experiment a or b which is better food pressure test"),
  page("/review/changes", "Changes", "what a step up costs", "steps raised too soon stuck plateau cost"),
  page("/review/moments", "Moments", "when it turns, and what comes before", "leaves warning signs before it goes tired end of session"),
  page("/review/load", "Load book", "minutes of everything, week by week", "load circling riding hours how much work minutes book"),
  page("/review/month", "Month", "a sheet for the owner", "report owner print summary letter client"),
];

/** The pages of the yard. */
export const YARD_PAGES: readonly Destination[] = [
  page("/", "Yard", "all horses", "home start horses list overview"),
  page("/horses/new", "Add a horse", "", "new horse create"),
  page("/places", "Places", "pens and their zones", "arena field paddock round pen"),
  page("/kit", "Kit", "lines, sticks, halters", "rope tack equipment gear whip"),
  page("/people", "People", "and their practice", "handler helper student client trainer owner"),
  page("/join", "Join a session", "a second pair of hands", "second device code observer"),
  page("/pen", "Pen", "what this device has with no network", "offline phone no internet"),
  page("/remote", "Remote", "a small simulated one", "clicker presenter foot switch button pedal"),
  page("/store", "Data", "size, copies, going back to one", "backup restore file disk"),
  page("/in-out", "In and out", "the whole yard as a file, tables, a spreadsheet", "export import csv excel package move computer"),
  page("/network", "Network", "a phone in the pen, who may sign in", "wifi qr code certificate phone sign in password"),
  page("/settings", "Settings", "units, thresholds, sample data", "preferences options demo celsius metres"),
  page("/bin", "Bin", "thirty days to take it out again", "trash deleted undo delete recover"),
];

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}-]+/u)
    .filter((word) => word !== "");

/** A name that was mistyped still finds, behind everything that was hit. */
const MISTYPED = 0.2;

/**
 * How well a name answers what is typed, from 0 to 1: by its own words first,
 * then by what people call it, then by letters alone. Each typed word begins
 * one of the words.
 * @example answers("vet", "Limits", "restrictions vet trim") // 0.6
 */
export function answers(typed: string, label: string, also = ""): number {
  const asked = wordsOf(typed);
  if (asked.length === 0) return 1;
  const own = wordsOf(label);
  const more = wordsOf(also);
  const begins = (list: readonly string[], word: string) => list.some((one) => one.startsWith(word));
  if (label.toLowerCase().startsWith(typed.trim().toLowerCase())) return own.length === asked.length ? 1 : 0.95;
  if (asked.every((word) => begins(own, word))) return 0.9;
  if (asked.every((word) => begins(own, word) || begins(more, word)))
    return asked.some((word) => own.includes(word) || more.includes(word)) ? 0.6 : 0.5;
  return MISTYPED * defaultFilter(label, typed);
}
