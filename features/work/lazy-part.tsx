"use client";

import { type ComponentType, lazy } from "react";

const loaders: (() => Promise<unknown>)[] = [];

function NotHere() {
  return (
    <p role="alert" className="font-semibold text-brick">
      This part is not on the device yet and the server does not answer. What you tapped is kept; open the page once more when it is back.
    </p>
  );
}

/** A part of the recorder that is fetched apart from the first script; without the server it says so instead of taking the page down. */
export function lazyPart<Props extends object>(load: () => Promise<ComponentType<Props>>) {
  loaders.push(load);
  return lazy(() =>
    load().then(
      (part) => ({ default: part }),
      () => ({ default: NotHere as ComponentType<Props> }),
    ),
  );
}

/** Fetches every part before it is opened: in the pen the server may be gone by then. */
export function fetchParts(): void {
  for (const load of loaders) load().catch(() => undefined);
}
