import "server-only";
import { connection } from "next/server";
import type { Network } from "@/network";
import { inProcess } from "./in-process";

/** The launcher puts it here; see getStore. */
const shared = inProcess<{ deftNetwork?: Pick<Network, "state" | "turnOn" | "turnOff"> }>();

/** The way from the network to this machine, as the launcher holds it. */
export async function getNetwork(): Promise<Pick<Network, "state" | "turnOn" | "turnOff">> {
  await connection();
  if (shared.deftNetwork === undefined) throw new Error("The pages run under npm start or npm run demo, which serve the network.");
  return shared.deftNetwork;
}

/** Remembered with the data, so that it is on again after a start. */
export const NETWORK_KEY = "network";
