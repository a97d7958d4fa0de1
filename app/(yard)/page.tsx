import { Yard } from "@/features/yard/yard";
import { yardLines } from "../server/yard-lines";
import { getStore } from "../server/store";

export default async function YardPage() {
  const store = await getStore();
  return <Yard lines={await yardLines(store)} />;
}
