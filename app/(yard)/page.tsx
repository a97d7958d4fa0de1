import { Yard } from "@/features/yard/yard";
import { getStore } from "../server/store";
import { yardLines } from "../server/yard-lines";

export default async function YardPage() {
  const store = await getStore();
  return <Yard lines={await yardLines(store)} />;
}
