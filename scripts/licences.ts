// The licences of everything installed, read from the lock file. Ends with 1 where one is to be looked at.
import { readFileSync } from "node:fs";
import { licencesOf } from "./licence-list";

const { byLicence, asking } = licencesOf(JSON.parse(readFileSync("package-lock.json", "utf8")) as Parameters<typeof licencesOf>[0]);
for (const [licence, names] of [...byLicence].sort(([, a], [, b]) => b.length - a.length))
  process.stdout.write(`${String(names.length).padStart(5)}  ${licence}${names.length > 5 ? "" : `: ${names.join("; ")}`}\n`);
for (const one of asking) process.stdout.write(`to be looked at: ${one}\n`);
process.exitCode = asking.length === 0 ? 0 : 1;
