"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { Confirm } from "../confirm";
import { send } from "./send";

/** Takes a thing away for good, once it was asked; then goes on to another page. */
export function Remove({ name, url, description, onwards }: { name: string; url: string; description: string; onwards: string }) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const remove = async () => {
    const sent = await send("DELETE", url);
    if (!sent.ok) return setProblem(sent.message);
    router.push(onwards);
    router.refresh();
  };
  return (
    <>
      <Confirm
        trigger="Remove"
        triggerClass="link"
        title={`Remove ${name}?`}
        description={description}
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
