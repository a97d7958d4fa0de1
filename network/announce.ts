import { Bonjour } from "bonjour-service";

/**
 * Lets this machine be found on the network by a name of its own (multicast
 * DNS, RFC 6762): it answers for the name on each of its networks.
 * @param addresses this machine's own, one on each network.
 * @returns how to stop.
 */
export async function announce(name: string, port: number, addresses: readonly string[]): Promise<() => Promise<void>> {
  // A network that goes away while it is answered on is no reason to end: the next look finds the ones there are.
  const responders = addresses.map((address) => new Bonjour({ interface: address, bind: "0.0.0.0" } as object, () => undefined));
  for (const responder of responders)
    responder.publish({ name: `Deft Tether ${name}`, type: "https", host: `${name}.local`, port, disableIPv6: true, probe: false });
  return async () => {
    await Promise.all(
      responders.map(
        (responder) =>
          new Promise<void>((resolve) => {
            // Goodbye is said first, so that nobody keeps the old number; a network that is gone does not hold it up.
            const done = setTimeout(resolve, 1000);
            responder.unpublishAll(() => {
              responder.destroy(() => {
                clearTimeout(done);
                resolve();
              });
            });
          }),
      ),
    );
  };
}
