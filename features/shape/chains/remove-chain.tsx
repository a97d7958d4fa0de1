"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { Confirm } from "@/ui/confirm";
import { send } from "@/ui/form";

/** Takes a chain away. The ladders it was made of stay. */
export function RemoveChain({ id, name, horseId }: { id: string; name: string; horseId: string }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const remove = async () => {
    const sent = await send("DELETE", `/api/chains/${id}`);
    if (!sent.ok) return setProblem(sent.message);
    router.push(`/horses/${horseId}/shape`);
    router.refresh();
  };
  return (
    <>
      <Confirm
        trigger="Remove"
        triggerClass="link"
        title={`Remove ${name}?`}
        description="Its ladders and their evidence stay."
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
