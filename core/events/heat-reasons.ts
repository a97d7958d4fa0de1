/** Why a little work may be begun though it is too hot. */
export const HEAT_REASONS = ["moved to shade", "vet present", "emergency loading"] as const;
