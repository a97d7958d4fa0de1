"use client";

import { useMemo } from "react";

/**
 * The same object for as long as it holds the same: the form library changes
 * its objects in place, which no memo would notice. What is no number reads as null.
 */
export function useByValue<T>(value: T): T {
  const text = JSON.stringify(value);
  return useMemo(() => JSON.parse(text) as T, [text]);
}
