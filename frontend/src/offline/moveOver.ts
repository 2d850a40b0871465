/** The queue of an earlier version, taken over into the device's store; fetched where there is one. */
import { forget } from "../lib/store";
import { db } from "./db";
import type { Entry } from "./outbox";

export async function moveOver(owner: string, old: Entry[]): Promise<void> {
  const tx = (await db()).transaction("outbox", "readwrite", { durability: "strict" });
  for (const entry of old) void tx.store.add({ ...entry, owner });
  await tx.done;
  forget(`outbox:${owner}`);
}
