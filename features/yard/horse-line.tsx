import Link from "next/link";
import { Day } from "@/ui/day";
import { minutesWords } from "@/ui/measure";
import { SmallRibbon } from "@/ui/ribbon";
import type { YardLine } from "./yard";

/** One horse in the yard: what to mind, its last session in small, and what comes next. */
export function HorseLine({ line, drawn = true }: { line: YardLine; drawn?: boolean }) {
  const { last, next } = line;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] items-center gap-x-8 gap-y-3 border-t-2 border-hair py-5 md:grid-cols-[13rem_1fr_19rem]">
      <div>
        <Link href={`/horses/${line.id}/know`} className="font-head text-2xl font-bold hover:underline">
          {line.name}
        </Link>
        {line.apart !== "" && <span className="ml-2 text-soft">{line.apart}</span>}
        {line.limits.map((limit) => (
          <p key={limit} className="mt-1 text-sm leading-snug text-brick">
            {limit}
          </p>
        ))}
        {line.due.map((date) => (
          <p key={date} className="mt-1 text-sm leading-snug font-semibold text-ochre">
            {date}
          </p>
        ))}
        {line.lookAt !== "" && <p className="mt-1 text-sm leading-snug text-soft">{line.lookAt}</p>}
      </div>
      {last === null ? (
        <p className="text-soft">No session yet.</p>
      ) : (
        <Link href={`/horses/${line.id}/review/${last.sessionId}`} className="group block min-w-0">
          {drawn ? (
            <SmallRibbon
              drawing={last.drawing}
              label={`Last session of ${line.name}${last.n > 0 ? `: ${last.met} of ${last.n} met` : ""}`}
            />
          ) : (
            <span className="block aspect-[560/84]" />
          )}
          <span className="figures text-sm text-soft group-hover:underline">
            <Day ms={last.startedMs} />, {minutesWords(last.workSeconds)}
            {last.n > 0 && `, ${last.met} of ${last.n} met`}
            {last.finished ? "" : ", not finished"}
          </span>
        </Link>
      )}
      {line.runningId !== null ? (
        <Link href={`/horses/${line.id}/work/${line.runningId}`} prefetch={false} className="act justify-self-start">
          Running: go on with it
        </Link>
      ) : next === null ? (
        <Link href={`/horses/${line.id}/shape/new`} className="link">
          Plan a first ladder
        </Link>
      ) : (
        <Link href={`/horses/${line.id}/work`} className="group block">
          <span className="block font-head text-lg font-bold text-tarn group-hover:underline">{next.headline}</span>
          <span className="text-sm text-soft">
            {next.behaviour}. {next.reason}
          </span>
        </Link>
      )}
    </div>
  );
}
