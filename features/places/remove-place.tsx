"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { Confirm } from "@/ui/confirm";
import { send } from "@/ui/form";

/** Removes a place. Sessions that were there keep what was recorded. */
export function RemovePlace({ id, name }: { id: string; name: string }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const remove = async () => {
    const sent = await send("DELETE", `/api/places/${id}`);
    if (!sent.ok) return setProblem(sent.message);
    router.push("/places");
    router.refresh();
  };
  return (
    <>
      <Confirm
        trigger="Remove"
        triggerClass="link"
        title={`Remove ${name}?`}
        description="Its drawing and zones go. Sessions that were there stay, without the place."
        act="Remove"
        onConfirm={() => void remove()}
      />
      {problem !== null && (
        <p role="alert" className="font-semibold text-brick">
          {problem}
        </p>
      )}
    </>
  );
}
