"use client";

import { useEffect, useState } from "react";
import type { Me } from "@/core/pack";
import { Field, send, tied } from "@/ui/form";
import { Mark } from "@/ui/frame";
import { keepMe } from "../device/me";
import { ownAddress } from "../device/own-address";

/** Where it goes on after signing in: an address of this program, and of no other. */
export function onwardsOf(search: string): string {
  return ownAddress(new URLSearchParams(search).get("to") ?? "") ?? "/pen";
}

/** Signs in on this device. It holds no data before. */
export function SignIn() {
  const [name, setName] = useState("");
  const [passphrase, setPassphrase] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    // A link from elsewhere comes without the cookie: whoever is signed in goes straight on.
    void send<{ me: Me | null }>("GET", "/api/me").then((sent) => {
      if (!sent.ok || sent.value.me === null) return;
      keepMe(sent.value.me);
      window.location.replace(onwardsOf(window.location.search));
    });
  }, []);
  const submit = async () => {
    setBusy(true);
    setProblem(null);
    const sent = await send("POST", "/api/sign-in", { name, passphrase });
    if (!sent.ok) {
      setBusy(false);
      return setProblem(sent.fields[0]?.message ?? sent.message);
    }
    const asked = await send<{ me: Me | null }>("GET", "/api/me");
    if (asked.ok) keepMe(asked.value.me);
    window.location.replace(onwardsOf(window.location.search));
  };
  return (
    <main className="mx-auto max-w-md px-5 py-8">
      <p className="flex items-center gap-2.5 font-head text-xl font-bold">
        <Mark className="h-6 w-10" /> Deft Tether
      </p>
      <h1 className="mt-5 text-[2rem]">Sign in</h1>
      <p className="mt-2">Your name and passphrase, as the yard keeper gave them to you. Once for this device.</p>
      <form
        className="mt-5 grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <Field id="name" label="Name">
          <input
            {...tied("name", undefined)}
            value={name}
            maxLength={80}
            autoComplete="username"
            autoCapitalize="words"
            onChange={(event) => setName(event.target.value)}
            className="field-box min-h-12"
          />
        </Field>
        <Field id="passphrase" label="Passphrase">
          <input
            {...tied("passphrase", undefined)}
            type="password"
            value={passphrase}
            maxLength={200}
            autoComplete="current-password"
            onChange={(event) => setPassphrase(event.target.value)}
            className="field-box min-h-12"
          />
        </Field>
        <button type="submit" className="act min-h-14 text-xl" disabled={busy}>
          {busy ? "A moment" : "Sign in"}
        </button>
        {problem !== null && (
          <p role="alert" className="font-semibold text-brick">
            {problem}
          </p>
        )}
      </form>
      <p className="mt-6 text-sm text-soft">Forgotten? A yard keeper gives you another under Network on the computer.</p>
    </main>
  );
}
