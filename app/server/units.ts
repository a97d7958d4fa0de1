import "server-only";
import { cookies } from "next/headers";
import type { UnitSystem } from "@/core/units";
import { isUnitSystem, UNITS_COOKIE } from "@/ui/units/words";

/** Which units this browser reads: metric unless it says otherwise. */
export async function chosenUnits(): Promise<UnitSystem> {
  const value = (await cookies()).get(UNITS_COOKIE)?.value;
  return isUnitSystem(value) ? value : "metric";
}
