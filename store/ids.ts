const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** An event's id as its table holds it: the sixteen bytes of a UUID. What an old store may hold else stays text. */
export const packId = (id: string): Buffer | string => (UUID.test(id) ? Buffer.from(id.replaceAll("-", ""), "hex") : id);

/** And back. */
export function unpackId(id: Buffer | string): string {
  if (typeof id === "string") return id;
  const hex = id.toString("hex");
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}
