import { isOfCode, storeFailure } from "@/store";

/** Ends a command with a sentence for the person who ran it. */
export function fail(...lines: string[]): never {
  for (const line of lines) process.stderr.write(`${line}\n`);
  process.exit(1);
}

/** An error as a sentence with what to do, where it is of a kind a person meets; null where it is a fault of the program. */
export function sentenceOf(error: unknown): string | null {
  if (isOfCode(error, "store-file")) return error.message;
  switch (storeFailure(error)) {
    case "full":
      return "The disk is full. Nothing was changed. Make room and start again.";
    case "held":
      return "The data is held by another program. Close it and start again.";
    case "unwritable":
      return `The data cannot be written (${error instanceof Error ? error.message : "unknown"}). See that the folder may be written and the disk is sound.`;
    case "damaged":
      return "The data is damaged. Go back to a backup: npm run restore -- FILE";
    default:
      return null;
  }
}

/** Runs a command; what goes wrong is said in a sentence, and only a fault of the program itself as a trace. */
export async function saidPlainly(command: () => Promise<void>): Promise<void> {
  try {
    await command();
  } catch (error) {
    const sentence = sentenceOf(error);
    if (sentence === null) throw error;
    fail(sentence);
  }
}
