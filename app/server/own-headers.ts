import { readFileSync } from "node:fs";
import { OURS_HEADER } from "@/features/device/ours";

/** The build that is served; the pen's files are of one. */
function buildServed(): string {
  try {
    return readFileSync(".next/BUILD_ID", "utf8").trim();
  } catch {
    return "none";
  }
}

/** Headers every answer carries, page or route. Pages add a policy with a nonce of their own. */
export const OWN_HEADERS: Readonly<Record<string, string>> = {
  [OURS_HEADER]: buildServed(),
  "x-content-type-options": "nosniff",
  "referrer-policy": "same-origin",
  "cross-origin-opener-policy": "same-origin",
  "cross-origin-resource-policy": "same-origin",
  // What a route answers is data: shown as a page it may load and run nothing.
  "content-security-policy": "default-src 'none'; frame-ancestors 'none'",
};
