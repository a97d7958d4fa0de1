/** One stop of the walk round the sample yard: a horse, the page to open, what to look at there. */
export interface DemoStop {
  readonly horse: string;
  readonly page: "shape" | "know" | "review" | "ahead" | "work";
  readonly title: string;
  readonly text: string;
}

/** Five stops, in the order of the work: shape, know, review, ahead, work. What they say is asserted by core in stories.test.ts. */
export const DEMO_TOUR: readonly DemoStop[] = [
  {
    horse: "Quillomar",
    page: "shape",
    title: "A stall, and the split that solved it.",
    text: "Open his plate ladder: its second version has a rung more. Under “What changed” stands which, and rung 6 carries what the old step cost.",
  },
  {
    horse: "Ostrevine",
    page: "review",
    title: "One side behind.",
    text: "Her left got more from the seventh week on. Open a session from before and one from now, and compare the sides.",
  },
  {
    horse: "Pellan Dusk",
    page: "review",
    title: "A release that came late.",
    text: "Open one of the first sessions and one of the last: the handler's own timing is half of what the horse learned.",
  },
  {
    horse: "Harrowmint",
    page: "ahead",
    title: "Two people, two rungs.",
    text: "What she does for Wenna she does not do for Dorrel yet; each has a start of their own.",
  },
  {
    horse: "Corriemoor",
    page: "work",
    title: "The recorder.",
    text: "This is where work begins. Open it on a phone: large pads, the criterion and the word always in sight. Then add a horse of your own.",
  },
];
