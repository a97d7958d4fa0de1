import { closeStore, openStore, rebuildCaches } from "@/store";

const store = await openStore(process.argv[2] ?? "");
const n = Number(((await store.sequelize.query("SELECT COUNT(*) AS n FROM trial"))[0] as { n: number }[])[0]?.n);
for (let i = 0; i < 3; i++) {
  const t = performance.now();
  await rebuildCaches(store);
  console.log(n, (((performance.now() - t) * 1000) / n).toFixed(1), "µs a trial");
}
await closeStore(store);
