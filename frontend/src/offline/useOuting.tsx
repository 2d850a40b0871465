/** An outing as the server has it, with what is still waiting on this device laid over it. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import {
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useSyncExternalStore,
} from "react";
import { routes } from "../api/routes";
import { type Asked, again, answered } from "../lib/again";
import { useReader } from "../lib/session";
import { Outbox, type Write } from "./outbox";
import { laidOver, type Outing, revisionOf, withWrite } from "./overlay";
import { keepAnswer } from "./persist";

export const outingAsked = (outing_id: string) =>
  routes.queryOptions("get", "/api/outings/{outing_id}", { params: { path: { outing_id } } }, { retry: 1 });

const boxes = new Map<string, Outbox>();
const OutboxContext = createContext<Outbox | null>(null);

export function OutboxProvider({ children }: { children: ReactNode }) {
  const { name } = useReader();
  const client = useQueryClient();
  const box = useMemo(() => {
    const found = boxes.get(name) ?? new Outbox(name);
    boxes.set(name, found);
    return found;
  }, [name]);
  useEffect(() => {
    const sent = new Set<string>();
    box.onSent = (all) => {
      for (const id of new Set(all.map(({ write }) => write.outing))) {
        const mine = all.filter(({ write }) => write.outing === id);
        // All of an outing at once: the page is drawn once.
        answered<Outing>(
          client,
          outingAsked(id).queryKey,
          (old) => old && mine.reduce((o, { write, revision }) => withWrite(o, write, revision), old),
        );
        sent.add(id);
      }
    };
    // Rates and effort are the server's to compute: asked again once nothing more waits, however long the device takes to say so.
    return box.subscribe(() => {
      if (sent.size === 0 || box.snapshot().some((entry) => !entry.refused)) return;
      const rows = [...sent].map((outing_id): Asked => ["/api/outings/{outing_id}", { outing_id }]);
      void again(client, "/api/log/*", "/api/outings/running", ...rows);
      sent.clear();
    });
  }, [box, client]);
  return <OutboxContext.Provider value={box}>{children}</OutboxContext.Provider>;
}

export function useOutbox() {
  const box = useContext(OutboxContext);
  if (!box) throw new Error("nobody is signed in here");
  const entries = useSyncExternalStore(box.subscribe, box.snapshot);
  return { box, entries };
}

export function useOuting(id: string) {
  const { box, entries } = useOutbox();
  const client = useQueryClient();
  const query = useQuery(outingAsked(id));
  const outing = useMemo(() => query.data && laidOver(query.data, entries), [query.data, entries]);
  // What is laid over it is kept with it, for a page that is opened in the dark.
  useEffect(() => {
    if (query.data) keepAnswer(client, outingAsked(id).queryKey);
  }, [query.data, client, id]);
  const write = useCallback(
    // What the server has now, not when the page offered the write: an undo is pressed later, on another page too.
    (what: string, w: Write) =>
      box.add(what, w, revisionOf(client.getQueryData<Outing>(outingAsked(id).queryKey), w)),
    [box, client, id],
  );
  return { ...query, outing, write };
}
