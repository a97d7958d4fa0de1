import { useRouter } from "next/navigation";
import { useState } from "react";
import { send } from "@/ui/form";

/** Where a restriction's id stands: what the yard's own settings close. */
export const YARD = "yard";

/** What is open in the list: one thing at a time, of one restriction. */
export type OpenLimit = { readonly what: "edit" | "end" | "against"; readonly id: string } | null;

/** What can be done with a horse's restrictions, and which of it is open. */
export function useLimits(horseId: string) {
  const router = useRouter();
  const [open, setOpen] = useState<OpenLimit>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const under = `/api/horses/${horseId}/restrictions`;
  const done = (sent: { readonly ok: true } | { readonly ok: false; readonly message: string }) => {
    setProblem(sent.ok ? null : sent.message);
    if (!sent.ok) return;
    setOpen(null);
    router.refresh();
  };
  return {
    open,
    setOpen,
    problem,
    end: async (id: string, why: string) => done(await send("POST", `${under}/${id}`, { ended: true, why })),
    holdsAgain: async (id: string) => done(await send("POST", `${under}/${id}`, { ended: false, why: "" })),
    goAgainst: async (id: string, reason: string) => done(await send("POST", `${under}/${id}/against`, { reason })),
    takeBack: async (id: string) => done(await send("DELETE", `${under}/${id}/against`)),
  };
}

export type LimitActs = ReturnType<typeof useLimits>;
