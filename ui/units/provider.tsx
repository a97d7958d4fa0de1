"use client";

import { createContext, type ReactNode, useContext } from "react";
import type { UnitSystem } from "@/core/units";

const Units = createContext<UnitSystem>("metric");

/** Which units this browser reads and types. */
export const useUnits = () => useContext(Units);

export function UnitsProvider({ units, children }: { units: UnitSystem; children: ReactNode }) {
  return <Units value={units}>{children}</Units>;
}
