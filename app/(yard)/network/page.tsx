import type { Metadata } from "next";
import { headers } from "next/headers";
import QRCode from "qrcode";
import { NetworkRoom } from "@/features/network/network-room";
import { accessOfPeople, listPeople, listSignIns } from "@/store";
import { getNetwork } from "../../server/network";
import { getStore } from "../../server/store";
import { whoAsks } from "../../server/who";

export const metadata: Metadata = { title: "Network" };

export default async function NetworkPage() {
  const store = await getStore();
  const [people, access, devices, network] = await Promise.all([
    listPeople(store),
    accessOfPeople(store),
    listSignIns(store),
    getNetwork(),
  ]);
  const state = network.state();
  const first = `http://${state.addresses[0] ?? state.host}:${state.joinPort}`;
  return (
    <NetworkRoom
      network={{
        ...state,
        code: state.on ? await QRCode.toString(first, { type: "svg", margin: 1, errorCorrectionLevel: "M" }) : null,
      }}
      people={people.map(({ id, name }) => ({ id, name, access: access.get(id) ?? null }))}
      devices={devices}
      machine={!whoAsks({ headers: await headers() }).network}
    />
  );
}
