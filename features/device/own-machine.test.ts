import { describe, expect, it } from "vitest";
import { noAnswerWords, onOwnMachine, startItWords } from "./own-machine";

describe("the machine the program runs on", () => {
  it("is told by the name in the address", () => {
    expect(["127.0.0.1", "localhost", "[::1]"].every(onOwnMachine)).toBe(true);
    expect(["192.168.1.7", "deft-1.local", "127.0.0.1.example", ""].some(onOwnMachine)).toBe(false);
  });
  it("never says that another computer does not answer", () => {
    expect(noAnswerWords("127.0.0.1")).toBe("Deft Tether is not running on this computer.");
    expect(startItWords("127.0.0.1")).toBe("Start it, then open this page again.");
    expect(noAnswerWords("deft-1.local")).toBe("The computer does not answer.");
  });
});
