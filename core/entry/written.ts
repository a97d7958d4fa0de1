/** Of what the id of a load is made that was no page load: a session written down by a person (RFC 9562, version 5 ids name something). */
const WRITTEN_VERSION = "5";

/**
 * Whether the events of a load were written by a person with the times they
 * said. No device's clock was read for them, so no clock moves them.
 * @example isWrittenLoad("00000000-0000-5000-8000-000000000001") // true
 */
export const isWrittenLoad = (load: string): boolean => load[14] === WRITTEN_VERSION;

/** The namespace of such ids. */
export const WRITTEN_NAMESPACE = "7b0c2c6e-52a1-5d3b-9d0e-5f2a6f0f3c11";
