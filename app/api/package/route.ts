import packageFile from "@/package.json";
import { writePackage } from "@/store";
import { answer } from "../../server/respond";
import { getStore } from "../../server/store";

/** The whole yard as one file. */
export function GET(request: Request) {
  return answer(request, async () => {
    const store = await getStore();
    const pieces = writePackage(store, { version: packageFile.version, nowMs: store.now() });
    const body = new ReadableStream<Uint8Array>({
      async pull(controller) {
        const { value, done } = await pieces.next();
        if (done === true) controller.close();
        else controller.enqueue(value);
      },
      async cancel() {
        await pieces.return(undefined);
      },
    });
    const day = new Date(store.now()).toISOString().slice(0, 10);
    return new Response(body, {
      headers: {
        "content-type": "application/zip",
        "content-disposition": `attachment; filename="yard-${day}.zip"`,
        "cache-control": "no-store",
      },
    });
  });
}
