"use client";

import { useState } from "react";
import { send } from "@/ui/form";
import { noAnswerWords } from "../../device/own-machine";
import { PartChoice } from "../../join/part-choice";
import { useLog, useStart } from "../state";

/** Another pair of hands at the same session: the code to read out, and this device's own part. */
export function HandsPanel() {
  const { id: sessionId } = useStart().session;
  const { part, setPart } = useLog();
  const [code, setCode] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const ask = async () => {
    setProblem(null);
    const sent = await send<{ code: string }>("POST", `/api/sessions/${sessionId}/code`, {});
    if (sent.ok) setCode(sent.value.code);
    else setProblem(`${noAnswerWords()} A second device can join only while it answers.`);
  };
  return (
    <section className="grid gap-2">
      <h3 className="font-semibold">Another pair of hands</h3>
      {code === null ? (
        <button type="button" className="act-quiet min-h-12" onClick={() => void ask()}>
          Give me a code
        </button>
      ) : (
        <p>
          Read it out: <strong className="figures font-head text-3xl tracking-[0.15em]">{code}</strong>
          <span className="block text-sm text-soft">On the other device: Join a session. Good for ten minutes.</span>
        </p>
      )}
      {problem !== null && (
        <p role="alert" className="text-brick">
          {problem}
        </p>
      )}
      <PartChoice value={part} onChange={setPart} />
    </section>
  );
}
