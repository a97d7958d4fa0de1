import { getResponder } from "@homebridge/ciao";

/** Lets this machine be found on the network by a name of its own (multicast DNS, RFC 6762). @returns how to stop. */
export async function announce(name: string, port: number): Promise<() => Promise<void>> {
  const responder = getResponder();
  const service = responder.createService({ name: `Deft Tether ${name}`, type: "https", hostname: name, port, disabledIpv6: true });
  await service.advertise();
  return async () => {
    await service.end();
    await responder.shutdown();
  };
}
