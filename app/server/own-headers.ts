/** Headers every answer carries, page or route. Pages add a policy with a nonce of their own. */
export const OWN_HEADERS: Readonly<Record<string, string>> = {
  "x-content-type-options": "nosniff",
  "referrer-policy": "same-origin",
  "cross-origin-opener-policy": "same-origin",
  "cross-origin-resource-policy": "same-origin",
  // What a route answers is data: shown as a page it may load and run nothing.
  "content-security-policy": "default-src 'none'; frame-ancestors 'none'",
};
