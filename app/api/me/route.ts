import { meOf } from "../../server/me";
import { answer, json } from "../../server/respond";
import { getStore } from "../../server/store";
import { whoAsks } from "../../server/who";

/** Who this device is to the server; null where nobody is signed in. */
export function GET(request: Request) {
  return answer(request, async () => {
    const who = whoAsks(request);
    return json({ me: who.role === null ? null : await meOf(await getStore(), who, request.headers.get("host") ?? "") });
  });
}
