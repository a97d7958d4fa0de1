import { endSignIn } from "@/store";
import { answer, json } from "../../server/respond";
import { secretCookie, TOKEN_COOKIE } from "../../server/sign-in";
import { getStore } from "../../server/store";
import { whoAsks } from "../../server/who";

/** Ends this device's sign-in. What it has kept stays on it, to be sent when its person signs in again. */
export function POST(request: Request) {
  return answer(request, async () => {
    const { signIn } = whoAsks(request);
    if (signIn !== null) await endSignIn(await getStore(), signIn);
    const response = json({});
    response.headers.append("set-cookie", secretCookie(TOKEN_COOKIE, ""));
    return response;
  });
}
