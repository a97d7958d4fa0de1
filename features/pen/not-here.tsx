"use client";

import { useEffect, useState } from "react";
import { counted } from "@/core/words";
import { waitingHere } from "../device/waiting-here";
import { NOT_SIGNED_IN } from "./refresh";

/** Shown where this device has nothing yet: what has to happen once. */
export function NotHere({ problem }: { problem: string | null }) {
  const unsigned = problem === NOT_SIGNED_IN;
  const [waiting, setWaiting] = useState(0);
  useEffect(() => {
    void waitingHere()
      .then(setWaiting)
      .catch(() => undefined);
  }, []);
  return (
    <div className="max-w-prose">
      <h1 className="text-[2rem]">{waiting === 0 ? "Nothing on this device yet" : "No horse on this device yet"}</h1>
      {waiting > 0 && (
        <p className="mt-3 border-l-4 border-ochre pl-4 text-lg">
          {counted(waiting, "tap")} on this device {waiting === 1 ? "waits" : "wait"}; nothing of it is lost, and it is sent when the
          computer it belongs to answers.
        </p>
      )}
      <p className="mt-3 text-lg">
        {problem === null
          ? "Asking the computer."
          : unsigned
            ? "Sign in once on this device; from then on the pen opens with or without the network."
            : `${problem} Open this page once while the computer runs and is in reach; from then on it works without.`}
      </p>
      {problem !== null && (
        <p className="mt-5 flex flex-wrap gap-4">
          {unsigned ? (
            <a href="/sign-in" className="act">
              Sign in
            </a>
          ) : (
            <button type="button" className="act" onClick={() => window.location.reload()}>
              Try again
            </button>
          )}
        </p>
      )}
    </div>
  );
}
