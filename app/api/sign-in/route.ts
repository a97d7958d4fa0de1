import { check, signInSchema } from "@/core/schemas";
import { deviceOf, newSecret, signIn } from "@/store";
import { Guesses, tooMany } from "../../server/rate";
import { answer, invalid, json, problem, readJson } from "../../server/respond";
import { DEVICE_COOKIE, deviceWords, secretCookie, TOKEN_COOKIE } from "../../server/sign-in";
import { getStore } from "../../server/store";
import { whoAsks } from "../../server/who";

/** A name and a passphrase guessed at random would need years at this pace. */
const guesses = new Guesses({ here: 6, everywhere: 60, minutes: 10 });
/** Hashing takes memory: two at a time, the others in turn. */
const MOST_AT_ONCE = 2;
let hashing = 0;

/** Signs a person in on this device, under a secret that is new each time. */
export function POST(request: Request) {
  return answer(request, async () => {
    const { network, remote } = whoAsks(request);
    if (!network) return problem(409, "Not needed", "On this computer nobody needs to sign in.");
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const checked = check(signInSchema, body.value, { strict: true });
    if (!checked.ok) return invalid(checked.problems);
    const wait = await guesses.wait(remote);
    if (wait > 0) return problem(429, "Too many tries", tooMany(wait), [], "wait");
    if (hashing >= MOST_AT_ONCE) return problem(429, "Busy", "Somebody else is signing in just now. Try again in a moment.", [], "wait");
    hashing++;
    try {
      // Counted before it is known to be wrong, so that many at once are counted too.
      await guesses.failed(remote);
      const store = await getStore();
      const cookies = request.headers.get("cookie") ?? "";
      const had = new RegExp(`(?:^|; *)${DEVICE_COOKIE}=([\\w-]{43})(?:;|$)`).exec(cookies)?.[1];
      const deviceSecret = had ?? newSecret();
      const signed = await signIn(store, {
        name: checked.value.name,
        passphrase: checked.value.passphrase,
        deviceSecret,
        deviceName: deviceWords(request.headers.get("user-agent") ?? ""),
        host: request.headers.get("host") ?? "",
      });
      if (signed === null) return problem(403, "Not signed in", "Name and passphrase do not fit together.");
      await guesses.succeeded(remote);
      const { who } = signed;
      const response = json({ name: who.name, access: who.access, recorder: who.recorder, device: deviceOf(deviceSecret) });
      response.headers.append("set-cookie", secretCookie(TOKEN_COOKIE, signed.token));
      response.headers.append("set-cookie", secretCookie(DEVICE_COOKIE, deviceSecret));
      return response;
    } finally {
      hashing--;
    }
  });
}
