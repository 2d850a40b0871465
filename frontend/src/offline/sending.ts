/** Sending what waits: many at once, each told for itself, one that cannot be taken set aside. Fetched when there is something to send. */
import { ApiError, api, need, type Problem, type Schemas } from "../api/client";
import { type Entry, type Hands, MOST_ROWS, type Sent } from "./outbox";

type Done = Schemas["RowDoneOut"];
/** A server that fails this often over one entry will not take it: it is set aside and the rest goes on. */
const MOST_TRIES = 3;
const REFUSALS = [400, 404, 409, 413, 422];

/** Send some; true where it is worth going on. */
export async function sendBatch(batch: Entry[], box: Hands): Promise<boolean> {
  const rows = batch.map(({ write, on }) => ({
    kind: write.kind,
    outing: write.outing,
    id: write.id,
    on: on ?? null,
    body: write.body as Record<string, unknown> | null,
  }));
  try {
    const told = await need(api.POST("/api/outings/rows", { body: { version: 2, rows } }));
    box.most(MOST_ROWS);
    return await take(batch, told.rows, box);
  } catch (error) {
    if (!(error instanceof ApiError)) return false; // No signal: keep, and try again later.
    if (error.status === 401) {
      box.hold();
      return false;
    }
    if (error.status === 403) {
      // The page's token is from before: the session gives a new one, and the next round takes it.
      await need(api.GET("/api/session")).catch(() => undefined);
    }
    if (error.status === 429) return false;
    if (batch.length > 1) {
      box.most(Math.max(1, Math.floor(batch.length / 2))); // one of them is too much for it: find out which
      return error.status < 500;
    }
    return await failed(batch[0] as Entry, error.status, error.problems, box);
  }
}

async function failed(entry: Entry, status: number, problems: Problem[], box: Hands): Promise<boolean> {
  const tries = (entry.tries ?? 0) + 1;
  const aside = (status !== 403 && REFUSALS.includes(status)) || tries >= MOST_TRIES;
  await box.change(new Map([[entry.key, { ...entry, tries, refused: aside ? problems : undefined }]]));
  return aside;
}

const stored = (told?: Done) => told !== undefined && told.status < 300;

/** Take in what became of each: gone, refused, or to be tried again. */
async function take(batch: Entry[], done: Done[], box: Hands): Promise<boolean> {
  const changed = new Map<string, Entry | null>();
  const sent: Sent[] = [];
  let trouble = false;
  batch.forEach((entry, n) => {
    const told = done[n];
    if (!told) return;
    const revision = told.revision ?? undefined;
    if (stored(told)) {
      sent.push({ write: entry.write, revision });
      changed.set(entry.key, null);
      for (const one of box.all())
        if (
          one.key !== entry.key &&
          one.write.id === entry.write.id &&
          (one.on ?? 0) < (revision ?? 0) &&
          !changed.has(one.key)
        )
          changed.set(one.key, { ...one, on: revision });
    } else {
      const tries = (entry.tries ?? 0) + 1;
      const aside = REFUSALS.includes(told.status) || tries >= MOST_TRIES;
      const later = batch.some((one, k) => k > n && one.write.id === entry.write.id && stored(done[k]));
      if (!aside && later) {
        changed.set(entry.key, null); // what was written of it later has arrived: sent again, this would undo that
        return;
      }
      trouble ||= !aside;
      changed.set(entry.key, {
        ...entry,
        tries,
        refused: aside ? told.errors : undefined,
        kept: (told.kept ?? undefined) as Entry["kept"],
      });
    }
  });
  box.sent(sent);
  await box.change(changed);
  return !trouble;
}
