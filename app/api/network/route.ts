import { check, networkSchema } from "@/core/schemas";
import { hasOwner, writeMeta } from "@/store";
import { getNetwork, NETWORK_KEY } from "../../server/network";
import { answer, invalid, json, problem, readJson } from "../../server/respond";
import { getStore } from "../../server/store";
import { whoAsks } from "../../server/who";

export function GET(request: Request) {
  return answer(request, async () => json((await getNetwork()).state()));
}

/** Turns the way from the network on or off, now and for later starts. */
export function PUT(request: Request) {
  return answer(request, async () => {
    const body = await readJson(request);
    if ("problem" in body) return body.problem;
    const checked = check(networkSchema, body.value, { strict: true });
    if (!checked.ok) return invalid(checked.problems);
    const { on } = checked.value;
    if (whoAsks(request).network) return problem(409, "Not from here", "The network is turned on and off on the computer itself.");
    const store = await getStore();
    if (on && !(await hasOwner(store)))
      return problem(409, "Nobody could sign in", "Make one person the yard keeper first, with a passphrase.", [], "no-owner");
    const network = await getNetwork();
    await (on ? network.turnOn() : network.turnOff());
    await writeMeta(store, NETWORK_KEY, on ? "on" : "off");
    return json(network.state());
  });
}
