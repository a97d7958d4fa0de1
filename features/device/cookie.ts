/** What a cookie of this browser says; undefined where there is none. Only what scripts may read. */
export function cookieOf(name: string): string | undefined {
  for (const part of document.cookie.split("; ")) if (part.startsWith(`${name}=`)) return part.slice(name.length + 1);
  return undefined;
}
