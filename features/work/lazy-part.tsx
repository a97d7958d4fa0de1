"use client";

import { type ComponentType, lazy, useState } from "react";

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
  let here: ComponentType<Props> | null = null;
  const fetched = () =>
    load().then((part) => {
      here = part;
      return part;
    });
  loaders.push(fetched);
  const Later = lazy(() =>
    fetched().then(
      (part) => ({ default: part }),
      () => ({ default: NotHere as ComponentType<Props> }),
    ),
  );
  // What is on the device already is drawn in the same frame; React would draw anything lazy a frame late, and what was
  // begun as one stays it, or what was typed in it would be lost.
  return function Part(props: Props) {
    const [Shown] = useState<ComponentType<Props>>(() => here ?? (Later as ComponentType<Props>));
    return <Shown {...props} />;
  };
}

/** Fetches every part before it is opened: in the pen the server may be gone by then. */
export function fetchParts(): void {
  for (const load of loaders) load().catch(() => undefined);
}
