import { useEffect, useRef, useState } from "react";
import { useWay } from "@/ui/way";
import { senderFor } from "../device/sender";

/** How long the review waits for the server before it is said that it does not answer. */
const WAIT_MS = 4000;

/** The way from a finished session to its review: at once from the device in the pen, otherwise once all of it is sent. */
export function useToReview(storeId: string, review: string) {
  const way = useWay();
  const [busy, setBusy] = useState(false);
  const [waits, setWaits] = useState<string | null>(null);
  const stopWaiting = useRef<(() => void) | null>(null);
  useEffect(() => () => stopWaiting.current?.(), []);
  const go = async () => {
    const sender = senderFor(storeId);
    // In the pen the review is made from what the device has: nothing is waited for.
    if (way.pen) return way.push(review);
    setBusy(true);
    const sent = await sender.flush(WAIT_MS);
    setBusy(false);
    if (sent) return way.push(review);
    setWaits("The session is finished and kept on this device. The server does not answer; when it does it goes on to the review.");
    stopWaiting.current?.();
    const look = () => {
      const { waiting, unkept } = sender.snapshot();
      if (waiting?.size !== 0 || unkept.size > 0) return;
      stopWaiting.current?.();
      way.push(review);
    };
    stopWaiting.current = sender.subscribe(look);
    // It may have gone through in between.
    look();
  };
  return { go: () => void go(), busy, waits };
}
