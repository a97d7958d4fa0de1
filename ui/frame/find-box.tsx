"use client";

import { Command } from "cmdk";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { GIVE_UP_MS } from "../form/send";
import { KNOTS } from "./knots";

interface Found {
  readonly horses: readonly {
    readonly id: string;
    readonly name: string;
    readonly apart: string;
    readonly ladders: readonly { readonly id: string; readonly name: string }[];
  }[];
}

const item = "flex cursor-pointer items-baseline justify-between gap-4 rounded px-3 py-2 data-[selected=true]:bg-tarn-wash";

/** The command box: type a horse, a room or a ladder and go there. */
export default function FindBox({ horseId, onClose }: { horseId: string | null; onClose: () => void }) {
  const router = useRouter();
  const [found, setFound] = useState<Found | null>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    fetch("/api/find", { signal: AbortSignal.timeout(GIVE_UP_MS) })
      .then(async (response) => setFound((await response.json()) as Found))
      .catch(() => setFailed(true));
  }, []);
  const go = (href: string) => {
    onClose();
    router.push(href);
  };
  return (
    <Command.Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      label="Find"
      overlayClassName="fixed inset-0 z-40 bg-ink/40"
      contentClassName="fixed top-[12vh] left-1/2 z-50 w-[min(36rem,calc(100vw-2rem))] -translate-x-1/2 rounded-md border-2 border-ink bg-paper p-2"
    >
      <Command.Input
        placeholder="A horse, a room, a ladder"
        className="w-full border-b border-hair bg-transparent px-3 py-3 text-lg outline-none"
      />
      <Command.List className="mt-2 max-h-[50vh] overflow-y-auto">
        <Command.Empty className="px-3 py-4 text-soft">
          {failed ? "The server does not answer." : found === null ? "Looking." : "Nothing by that name."}
        </Command.Empty>
        {horseId !== null &&
          KNOTS.map(({ key, label, hint }) => (
            <Command.Item key={key} value={`${label} ${hint}`} onSelect={() => go(`/horses/${horseId}/${key}`)} className={item}>
              {label} <span className="text-sm text-soft">{hint}</span>
            </Command.Item>
          ))}
        {(found?.horses ?? []).flatMap((horse) => [
          <Command.Item
            key={horse.id}
            value={`${horse.name} ${horse.apart} ${horse.id}`}
            onSelect={() => go(`/horses/${horse.id}/know`)}
            className={item}
          >
            {horse.name} <span className="text-sm text-soft">{horse.apart === "" ? "horse" : horse.apart}</span>
          </Command.Item>,
          ...horse.ladders.map((ladder) => (
            <Command.Item
              key={ladder.id}
              value={`${ladder.name} ${horse.name} ${ladder.id}`}
              onSelect={() => go(`/horses/${horse.id}/shape/${ladder.id}`)}
              className={item}
            >
              {ladder.name} <span className="text-sm text-soft">{horse.name}</span>
            </Command.Item>
          )),
        ])}
        <Command.Item value="Yard all horses" onSelect={() => go("/")} className={item}>
          Yard <span className="text-sm text-soft">all horses</span>
        </Command.Item>
        <Command.Item value="Add a horse" onSelect={() => go("/horses/new")} className={item}>
          Add a horse
        </Command.Item>
        {(
          [
            ["Places", "/places", "pens and their zones"],
            ["Kit", "/kit", "lines, sticks, halters"],
            ["People", "/people", "and their practice"],
            ["Join a session", "/join", "a second pair of hands"],
            ["Data", "/store", "size, copies, going back to one"],
            ["In and out", "/in-out", "the whole yard as a file, tables, a spreadsheet"],
            ["Network", "/network", "a phone in the pen, who may sign in"],
          ] as const
        ).map(([label, href, hint]) => (
          <Command.Item key={href} value={`${label} ${hint}`} onSelect={() => go(href)} className={item}>
            {label} <span className="text-sm text-soft">{hint}</span>
          </Command.Item>
        ))}
        <Command.Item value="Settings data backup units" onSelect={() => go("/settings")} className={item}>
          Settings <span className="text-sm text-soft">sample data, backup</span>
        </Command.Item>
      </Command.List>
    </Command.Dialog>
  );
}
