import { networkInterfaces } from "node:os";

/** Ranges that no machine outside a home or yard can have: what the authority is limited to (RFC 1918, RFC 3927, RFC 4193, RFC 4291). */
export const PRIVATE_RANGES = ["10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "fc00::/7", "fe80::/10"] as const;

/** Whether an address of version 4 is a private one. @example isPrivate("192.168.1.7") // true */
export function isPrivate(address: string): boolean {
  const bytes = address.split(".").map(Number);
  const [a, b] = bytes;
  if (bytes.length !== 4 || a === undefined || b === undefined || bytes.some((byte) => !Number.isInteger(byte) || byte < 0 || byte > 255))
    return false;
  return a === 10 || (a === 172 && b >= 16 && b <= 31) || (a === 192 && b === 168) || (a === 169 && b === 254);
}

/** This machine's private addresses of version 4, as the router dealt them out: those of a yard's network first, made-up ones of programs last. */
export function privateAddresses(): string[] {
  const found: { readonly address: string; readonly order: number }[] = [];
  for (const [name, list] of Object.entries(networkInterfaces()))
    for (const { family, internal, address } of list ?? [])
      if (family === "IPv4" && !internal && isPrivate(address))
        found.push({
          address,
          order: (/^(docker|br-|virbr|vbox|vmnet|tun|tap)/i.test(name) ? 2 : 0) + (address.startsWith("169.254.") ? 1 : 0),
        });
  return found.sort((a, b) => a.order - b.order || a.address.localeCompare(b.address)).map(({ address }) => address);
}

/** The name this machine answers to on the network: one of its own for each store, so that two yards do not meet. @example ownName("75bd0c11-…") // "deft-75bd" */
export const ownName = (storeId: string): string =>
  `deft-${storeId
    .replace(/[^0-9a-f]/gi, "")
    .slice(0, 4)
    .toLowerCase()}`;
