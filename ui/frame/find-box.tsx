"use client";

import { Command } from "cmdk";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { GIVE_UP_MS } from "../form/send";
import { answers, HORSE_PAGES, YARD_PAGES } from "./destinations";
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

const PEN = "/pen";
/** From here on a page counts as hit by its words; below are the mistyped. */
const HIT = 0.5;
/** Two letters begin to mean something; a yard of forty horses has nine hundred pages. */
const LETTERS_FOR_PAGES = 2;

/** One thing to go to. It is found by its name and by what people call it. */
function Place({ id, label, hint, also = "", onGo }: { id: string; label: string; hint: string; also?: string; onGo: () => void }) {
  return (
    <Command.Item value={id} keywords={[label, `${hint} ${also}`]} onSelect={onGo} className={item}>
      {label} <span className="text-sm text-soft">{hint}</span>
    </Command.Item>
  );
}

/** The command box: type a horse, a page by any of its names, or a ladder, and go there. */
export default function FindBox({ horseId, onClose }: { horseId: string | null; onClose: () => void }) {
  const router = useRouter();
  const [found, setFound] = useState<Found | null>(null);
  const [failed, setFailed] = useState(false);
  const [typed, setTyped] = useState("");
  useEffect(() => {
    fetch("/api/find", { signal: AbortSignal.timeout(GIVE_UP_MS) })
      .then(async (response) => setFound((await response.json()) as Found))
      .catch(() => setFailed(true));
  }, []);
  const go = (href: string) => {
    onClose();
    // The pen is a page of its own, which a device keeps whole.
    if (href === PEN) window.location.assign(href);
    else router.push(href);
  };
  const horses = found?.horses ?? [];
  // At a horse its own pages are meant; in the yard a page is one of each horse.
  const whose = horseId === null ? horses : [{ id: horseId, name: "" }];
  const pages =
    typed.trim().length < LETTERS_FOR_PAGES
      ? []
      : whose.flatMap(({ id, name }) =>
          HORSE_PAGES.filter(({ label, hint, also }) => answers(typed, label, `${hint} ${also} ${name}`) >= HIT).map((page) => ({
            id,
            name,
            page,
          })),
        );
  const names: readonly (readonly [string, string])[] = [
    ...(horseId === null ? [] : KNOTS.map(({ label, hint }) => [label, hint] as const)),
    ...horses.flatMap(({ name, apart, ladders }) => [
      [name, apart === "" ? "horse" : apart] as const,
      ...ladders.map((ladder) => [ladder.name, name] as const),
    ]),
    ...YARD_PAGES.map(({ label, hint, also }) => [label, `${hint} ${also}`] as const),
  ];
  const isHit = pages.length > 0 || names.some(([label, also]) => answers(typed, label, also) >= HIT);
  return (
    <Command.Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      label="Find"
      filter={(_, search, keywords = []) => {
        const score = answers(search, keywords[0] ?? "", keywords[1]);
        // What only looks like it is shown where nothing was hit.
        return isHit && score < HIT ? 0 : score;
      }}
      overlayClassName="fixed inset-0 z-40 bg-ink/40"
      contentClassName="fixed top-[12vh] left-1/2 z-50 w-[min(36rem,calc(100vw-2rem))] -translate-x-1/2 rounded-md border-2 border-ink bg-paper p-2"
    >
      <Command.Input
        value={typed}
        onValueChange={setTyped}
        placeholder="A horse, a page, a ladder"
        className="w-full border-b border-hair bg-transparent px-3 py-3 text-lg outline-none"
      />
      <Command.List className="mt-2 max-h-[50vh] overflow-y-auto">
        <Command.Empty className="px-3 py-4 text-soft">
          {failed ? "The server does not answer." : found === null ? "Looking." : "Nothing by that name."}
        </Command.Empty>
        {horseId !== null &&
          KNOTS.map(({ key, label, hint }) => (
            <Place key={key} id={key} label={label} hint={hint} onGo={() => go(`/horses/${horseId}/${key}`)} />
          ))}
        {horses.flatMap((horse) => [
          <Place
            key={horse.id}
            id={horse.id}
            label={horse.name}
            hint={horse.apart === "" ? "horse" : horse.apart}
            onGo={() => go(`/horses/${horse.id}/know`)}
          />,
          ...horse.ladders.map((ladder) => (
            <Place
              key={ladder.id}
              id={ladder.id}
              label={ladder.name}
              hint={horse.name}
              onGo={() => go(`/horses/${horse.id}/shape/${ladder.id}`)}
            />
          )),
        ])}
        {pages.map(({ id, name, page: { path, label, hint, also } }) => (
          <Place
            key={`${id}${path}`}
            id={`${id}${path}`}
            label={label}
            hint={name === "" ? hint : name}
            also={`${hint} ${also}`}
            onGo={() => go(`/horses/${id}${path}`)}
          />
        ))}
        {YARD_PAGES.map(({ path, label, hint, also }) => (
          <Place key={path} id={path} label={label} hint={hint} also={also} onGo={() => go(path)} />
        ))}
      </Command.List>
    </Command.Dialog>
  );
}
