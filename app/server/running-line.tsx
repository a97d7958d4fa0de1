import "server-only";
import Link from "next/link";
import { openSessions } from "@/store";
import { getStore } from "./store";

/** The session of the horse that is being worked now, with the way to it; nothing where none is. */
export async function RunningLine({ horseId }: { horseId: string }) {
  const running = (await openSessions(await getStore(), horseId)).find((one) => one.running);
  if (running === undefined) return null;
  return (
    <p className="no-print mb-3 border-l-4 border-tarn pl-3">
      A session is running.{" "}
      <Link href={`/horses/${horseId}/work/${running.id}`} prefetch={false} className="link">
        Go on with it
      </Link>
    </p>
  );
}
