// What each command does and takes; --help prints it before anything is installed, built or opened.

const DATA = "  --demo        the demo's data instead of your own";

export const HELP = {
  start: `npm start [-- OPTIONS]
Installs what is missing, builds, and starts Deft Tether with your own data.
  --port N      the port to listen on, 1024 to 65535; your data remembers its port
  --page        where the data cannot be opened, shows the reason in the browser until it is stopped
  --lan         serves the local network too, over https; see the page Network

npm run demo does the same with an invented yard.
  --fresh       makes the demo's yard anew`,
  analyse: `npm run -s analyse -- FILE [OPTIONS]
Every measure of a trials.csv or an events.csv, as JSON.
  --sessions FILE   a sessions.csv beside it, whose working time is used
  --without-late    leaves out what was written down from memory`,
  calc: `npm run -s calc -- NAME < input.json
One function of the core: JSON in, JSON out. Without a name it lists them.`,
  bench: `npm run bench [-- OPTIONS]
The figures the project promises, each with a yardstick measured in the same run.
  --only NAME   one part: analyse, events, rules, word, editor, script, pads, hear, pen or house
  --trials N    the house of one size instead of 10 000, 100 000 and 1 000 000
  --json        prints only JSON`,
  licences: `npm run -s licences
The licences of everything installed, from the lock file; ends with 1 where one is to be looked at.`,
  numbers: `npm run -s numbers [-- OPTIONS]
What the code is made of, room by room: lines, long functions, casts, the longest file.
  --long        names the long functions`,
  backup: `npm run backup [-- FILE] [OPTIONS]
A checked copy of the data, also while the program runs.
${DATA}`,
  restore: `npm run restore -- FILE [OPTIONS]
Goes back to a backup; the present data is set aside. Stop the program first.
${DATA}`,
  "forget-network": `npm run forget-network [-- OPTIONS]
Takes everything of the network back: its certificate authority with the key, and every sign-in. Stop the program first.
${DATA}`,
  rebuild: `npm run rebuild [-- OPTIONS]
Makes every cached sum anew from the taps. Stop the program first.
${DATA}`,
  purge: `npm run -s purge [-- OPTIONS]
Empties the bin at once and for good. Stop the program first.
${DATA}`,
  "large-yard": `npm run -s large-yard -- FILE.sqlite [OPTIONS]
An invented yard of many years, for measuring; its caches are made at the end.
  --trials N    a million where it is not said; --horses 40, --sessions, --years 10 likewise`,
  derived: `npm run -s derived
Prints what is derived from the events of the demo and of 200 random sessions, a line each, to compare two versions by.`,
  truth: `npm run -s truth [-- OPTIONS]
How often each sentence is wrong where nothing is there, and said where something is, on simulated horses.
  --horses N    1000 where it is not said
  --seed N      other horses: 1 draws those that are always tried
  --only NAME   sentences with this in them
  --matrix      in place of the table: sentences in a yard with habits, one habit at a time at two strengths;
                in as many workers as there are cores, and taken up again where it was cut off
  --yard NAME   of the matrix, yards with this in their name
  --cells       the matrix with a line for each cell`,
  library: `npm run library

Writes docs/library.md: every behaviour of the library by each method and way,
worked from the first rung to the last by the simulated horse of the demo.
Takes about a minute.`,
  rules: `npm run -s rules
The study behind the default rule, a session's plan and the thresholds of Ease and Split.`,
  docs: `npm run docs
Writes the pages and drawings of docs/ that follow from the code.`,
  faults: `npm run faults
Kills, full disks, locks and hostile bodies, at length. npm run fuzz: the bodies alone.
  --guards      the guards that need no server, and nothing else`,
  repeat: `npm run repeat [-- OPTIONS]
Every browser test three times, those that wait, count or hear ten times, beside a program that takes every core. Cut off, it goes on where it was.
  --only NAME   the files with this in their name
  --status      what was run so far, and nothing else
  --keep        goes on with the runs of an earlier version`,
  test: `npm test [-- OPTIONS]
Types, lint, unit tests, faults and browser tests, on the production build.
  --quick       types, lint, the unit tests of what changed and two browser lines`,
};

/** Prints a command's help where it is asked for. @returns whether it was. */
export function helped(name) {
  if (!process.argv.includes("--help") && !process.argv.includes("-h")) return false;
  process.stdout.write(`${HELP[name] ?? `There is no command ${name}. Known: ${Object.keys(HELP).join(", ")}.`}\n`);
  return true;
}
