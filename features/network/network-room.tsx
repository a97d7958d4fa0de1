"use client";

import { useState } from "react";
import type { AccessInput } from "@/core/schemas";
import { keysOf } from "@/core/typed";
import { Day } from "@/ui/day";
import { Field, send, tied } from "@/ui/form";
import { onAdvice } from "@/ui/form/on-word";
import { useWay } from "@/ui/way";

/** The way from the network, as it is shown. */
export interface NetworkFacts {
  readonly on: boolean;
  readonly host: string;
  readonly port: number;
  readonly joinPort: number;
  readonly addresses: readonly string[];
  readonly named: boolean;
  readonly fingerprint: string | null;
  readonly problem: string | null;
  /** The code of the address a phone begins at, as a drawing. */
  readonly code: string | null;
}

/** A person with what it may do from the network. */
export interface PersonAccess {
  readonly id: string;
  readonly name: string;
  readonly access: "owner" | "helper" | null;
}

/** A device that is signed in. */
export interface DeviceLine {
  readonly id: string;
  readonly name: string;
  readonly access: "owner" | "helper" | null;
  readonly deviceName: string;
  readonly host: string;
  readonly createdMs: number;
  readonly usedMs: number;
}

const ACCESS_WORDS = { none: "may not sign in", helper: "helper: logs and reads", owner: "yard keeper: everything" } as const;
const ACCESS = keysOf(ACCESS_WORDS);

function AccessForm({ person, onDone }: { person: PersonAccess; onDone: () => void }) {
  const [access, setAccess] = useState<AccessInput["access"]>(person.access ?? "helper");
  const [passphrase, setPassphrase] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const save = async () => {
    setBusy(true);
    setProblem(null);
    const sent = await send("PUT", `/api/people/${person.id}/access`, access === "none" ? { access } : { access, passphrase });
    setBusy(false);
    if (sent.ok) return onDone();
    setProblem(sent.fields[0]?.message ?? sent.message);
  };
  return (
    <form
      className="mt-2 grid max-w-xl gap-3 border-l-4 border-tarn pl-4 sm:grid-cols-2"
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <Field id={`access-${person.id}`} label="Access">
        <select {...tied(`access-${person.id}`, undefined)} value={access} onChange={onAdvice(ACCESS, setAccess)} className="field-box">
          {ACCESS.map((one) => (
            <option key={one} value={one}>
              {ACCESS_WORDS[one]}
            </option>
          ))}
        </select>
      </Field>
      {access !== "none" && (
        <Field id={`pass-${person.id}`} label="Passphrase" hint="At least 10 characters; four words do well" error={problem ?? undefined}>
          <input
            {...tied(`pass-${person.id}`, problem ?? undefined)}
            type="password"
            value={passphrase}
            maxLength={200}
            autoComplete="new-password"
            onChange={(event) => setPassphrase(event.target.value)}
            className="field-box"
          />
        </Field>
      )}
      <div className="flex gap-3 sm:col-span-2">
        <button type="submit" className="act" disabled={busy}>
          Save
        </button>
        <button type="button" className="act-quiet" onClick={onDone}>
          Leave
        </button>
      </div>
      {access === "none" && problem !== null && <p className="text-brick">{problem}</p>}
    </form>
  );
}

function Switch({ network, machine, owner }: { network: NetworkFacts; machine: boolean; owner: boolean }) {
  const way = useWay();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const turn = async (on: boolean) => {
    setBusy(true);
    setProblem(null);
    const sent = await send("PUT", "/api/network", { on });
    setBusy(false);
    if (!sent.ok) setProblem(sent.message);
    way.refresh();
  };
  const said = problem ?? network.problem;
  return (
    <>
      <p className="text-lg">
        {network.on
          ? "The network is on: devices in your own network reach this computer, and everybody on them signs in."
          : "The network is off: only this computer itself reaches the program."}
      </p>
      {said !== null && (
        <p role="alert" className="mt-2 border-l-4 border-brick pl-4 font-semibold text-brick">
          {said}
        </p>
      )}
      {machine ? (
        <p className="mt-3">
          <button type="button" className="act" disabled={busy || (!network.on && !owner)} onClick={() => void turn(!network.on)}>
            {network.on ? "Turn it off" : "Turn it on"}
          </button>
          {!network.on && !owner && <span className="ml-4 text-soft">First make one person the yard keeper, below.</span>}
        </p>
      ) : (
        <p className="mt-2 text-soft">It is turned on and off on the computer itself.</p>
      )}
    </>
  );
}

function Join({ network }: { network: NetworkFacts }) {
  const first = `http://${network.addresses[0] ?? network.host}:${network.joinPort}`;
  return (
    <section aria-labelledby="join" className="mt-8 border-t-2 border-ink pt-4">
      <h2 id="join" className="text-2xl">
        Bring a phone to the pen
      </h2>
      <div className="mt-3 grid gap-x-10 gap-y-5 md:grid-cols-[15rem_1fr]">
        {network.code !== null && (
          <div
            role="img"
            aria-label={`Code of ${first}`}
            className="size-60 rounded border-2 border-ink bg-white p-2"
            // biome-ignore lint/security/noDangerouslySetInnerHtml: drawn by the program itself from its own address
            dangerouslySetInnerHTML={{ __html: network.code }}
          />
        )}
        <ol className="list-decimal space-y-2 pl-5">
          <li>The phone is in the same network as this computer: the yard's Wi-Fi.</li>
          <li>
            Point its camera at the code, or type <strong className="wrap-anywhere">{first}</strong>
          </li>
          <li>The page that opens says how to trust this computer, step by step, and looks whether it worked.</li>
          <li>
            Press “Open Deft Tether” there and sign in. From then on it is{" "}
            <strong className="wrap-anywhere">{`https://${network.host}:${network.port}`}</strong>
          </li>
          <li>Put it on the home screen: in the browser's menu, “Add to home screen”. It then opens with no network too.</li>
        </ol>
      </div>
      {network.fingerprint !== null && (
        <p className="mt-4 text-sm">
          The phone shows this too; compare it: <code className="wrap-anywhere">{network.fingerprint}</code>
        </p>
      )}
      <p className="mt-2 text-sm text-soft">
        The certificate can vouch for {network.host} and addresses inside your network, for nothing else. To take everything back:{" "}
        <code>npm run forget-network</code>.
      </p>
    </section>
  );
}

/** The way to the pen: the network on or off, how a phone comes in, who may sign in, and which devices are. */
export function NetworkRoom({
  network,
  people,
  devices,
  machine,
}: {
  network: NetworkFacts;
  people: readonly PersonAccess[];
  devices: readonly DeviceLine[];
  /** Whether this is the computer itself. */
  machine: boolean;
}) {
  const way = useWay();
  const [open, setOpen] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const end = async (id: string) => {
    const sent = await send("DELETE", `/api/sign-ins/${id}`);
    setProblem(sent.ok ? null : sent.message);
    way.refresh();
  };
  return (
    <>
      <h1 className="mb-3 text-[2rem]">Network</h1>
      <Switch network={network} machine={machine} owner={people.some(({ access }) => access === "owner")} />
      {network.on && <Join network={network} />}
      <section aria-labelledby="who" className="mt-8 border-t-2 border-ink pt-4">
        <h2 id="who" className="text-2xl">
          Who may sign in
        </h2>
        {people.length === 0 && (
          <p className="mt-2">
            Nobody is noted yet. Add a person under{" "}
            <a href="/people" className="link">
              People
            </a>
            .
          </p>
        )}
        <ul className="mt-2 border-b-2 border-hair">
          {people.map((person) => (
            <li key={person.id} className="border-t-2 border-hair py-3">
              <div className="flex flex-wrap items-baseline justify-between gap-x-6">
                <p>
                  <strong className="font-head text-lg">{person.name}</strong>{" "}
                  <span className="text-soft">{ACCESS_WORDS[person.access ?? "none"]}</span>
                </p>
                <button
                  type="button"
                  className="link"
                  aria-label={`Change the access of ${person.name}`}
                  onClick={() => setOpen(person.id)}
                >
                  Change
                </button>
              </div>
              {open === person.id && (
                <AccessForm
                  person={person}
                  onDone={() => {
                    setOpen(null);
                    way.refresh();
                  }}
                />
              )}
            </li>
          ))}
        </ul>
        <p className="mt-2 text-sm text-soft">A change of access or passphrase ends that person's sign-ins.</p>
      </section>
      <section aria-labelledby="devices" className="mt-8 border-t-2 border-ink pt-4">
        <h2 id="devices" className="text-2xl">
          Devices signed in
        </h2>
        {devices.length === 0 && <p className="mt-2">None.</p>}
        <ul className="mt-2">
          {devices.map((device) => (
            <li key={device.id} className="flex flex-wrap items-baseline justify-between gap-x-6 border-t-2 border-hair py-2.5">
              <p>
                <strong>{device.name}</strong> {device.deviceName}{" "}
                <span className="text-soft">
                  at {device.host}, since <Day ms={device.createdMs} />, last used <Day ms={device.usedMs} time />
                </span>
              </p>
              <button
                type="button"
                className="link"
                aria-label={`End ${device.name} on ${device.deviceName}`}
                onClick={() => void end(device.id)}
              >
                End it
              </button>
            </li>
          ))}
        </ul>
        {problem !== null && (
          <p role="alert" className="text-brick">
            {problem}
          </p>
        )}
      </section>
    </>
  );
}
