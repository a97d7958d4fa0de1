"use client";

import { useSyncExternalStore } from "react";

/** Screens with no room for five rows of pads beside what may never be hidden; recorder.css lays out by the same heights. */
export const SHORT = "(max-width: 559px) and (max-height: 599px), (max-height: 329px)";

const subscribe = (changed: () => void) => {
  const query = matchMedia(SHORT);
  query.addEventListener("change", changed);
  return () => query.removeEventListener("change", changed);
};

/** Whether the screen is a short one. */
export const useShort = () =>
  useSyncExternalStore(
    subscribe,
    () => matchMedia(SHORT).matches,
    () => false,
  );
