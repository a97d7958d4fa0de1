/**
 * What the gate in front of the program says of a request, in headers of its
 * own: whatever a client sends under these names is taken off first.
 */
export const WHO = {
  /** `machine` on the machine itself, `network` for all others. */
  at: "x-deft-at",
  role: "x-deft-role",
  person: "x-deft-person",
  recorder: "x-deft-recorder",
  signIn: "x-deft-sign-in",
  remote: "x-deft-remote",
} as const;

interface Asked {
  readonly headers: { get(name: string): string | null };
}

/** Who asks. On the machine itself everybody is the owner, and nobody by name. */
export interface Who {
  readonly network: boolean;
  readonly role: "owner" | "helper" | null;
  readonly personId: string | null;
  readonly recorder: string | null;
  readonly signIn: string | null;
  readonly remote: string;
}

/** Reads what the gate said of a request. */
export function whoAsks({ headers }: Asked): Who {
  const network = headers.get(WHO.at) === "network";
  const said = headers.get(WHO.role);
  return {
    network,
    role: network ? (said === "owner" || said === "helper" ? said : null) : "owner",
    personId: headers.get(WHO.person),
    recorder: decoded(headers.get(WHO.recorder)),
    signIn: headers.get(WHO.signIn),
    remote: headers.get(WHO.remote) ?? "",
  };
}

const decoded = (text: string | null) => (text === null ? null : decodeURIComponent(text));
