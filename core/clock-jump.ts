/**
 * A jump of a device's wall clock against its monotonic one by more than this,
 * in milliseconds, is no drift of the two: ahead the device slept, its
 * monotonic clock standing still meanwhile, or was set; back it was set.
 */
export const CLOCK_JUMP_MS = 1500;
