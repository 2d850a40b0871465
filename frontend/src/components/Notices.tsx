/** What the angler has to know of signal, store and version, on every page. */
import { useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useRef, useState, useSyncExternalStore } from "react";
import { useLocation } from "wouter";
import { SIGNED_OUT } from "../api/client";
import { again } from "../lib/again";
import { setBack } from "../lib/clock";
import { useReach } from "../lib/reach";
import { useReader, useSession } from "../lib/session";
import { load, picturesKey } from "../lib/store";
import { clockText } from "../lib/time";
import { useOutbox } from "../offline/useOuting";
import { fresh, keepable } from "../offline/worker";
import { Button } from "../ui/controls";
import { words } from "./strings";

const rare = () => import("./RareNotices");
const Return = lazy(() => rare().then((found) => ({ default: found.Return })));
const NewVersion = lazy(() => rare().then((found) => ({ default: found.NewVersion })));
const NotKept = lazy(() => rare().then((found) => ({ default: found.NotKept })));
const OnTheirWay = lazy(() => rare().then((found) => ({ default: found.OnTheirWay })));
const Refused = lazy(() => import("./Refused"));
const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;
/** Answers that do not age within a day. */
const AGELESS = new Set(["session", "/api/food/catalogue", "/api/schools"]);

/** True once something has been waiting for more than a moment. */
function useLate(waiting: boolean): boolean {
  const [late, setLate] = useState(false);
  useEffect(() => {
    if (!waiting) {
      setLate(false);
      return;
    }
    const timer = setTimeout(() => setLate(true), 2500);
    return () => clearTimeout(timer);
  }, [waiting]);
  return late;
}

/** What a question is called: its route, or the word of one that the page asks itself. */
const nameOf = (key: readonly unknown[]) => String(key[1] ?? key[0]);

/** From when the oldest of what this page shows is. */
function useAsOf(dark: boolean): string | null {
  const client = useQueryClient();
  const [pathname] = useLocation();
  const [at, setAt] = useState<number | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another page shows other answers
  useEffect(() => {
    if (!dark) return;
    const look = () => {
      const ages = client
        .getQueryCache()
        .findAll({ type: "active" })
        .filter((query) => query.state.data !== undefined && !AGELESS.has(nameOf(query.queryKey)))
        .map((query) => query.state.dataUpdatedAt);
      setAt(ages.length > 0 ? Math.min(...ages) : null);
    };
    look();
    const timer = setInterval(look, 2000);
    return () => clearInterval(timer);
  }, [dark, client, pathname]);
  return at === null ? null : clockText(new Date(at).toISOString(), HERE);
}

/** Signal again, and all sent: what the page shows is asked for anew. */
function useBack(reached: boolean) {
  const client = useQueryClient();
  const before = useRef(reached);
  useEffect(() => {
    if (reached && !before.current) void again(client);
    before.current = reached;
  }, [reached, client]);
}

/** Once the server has said that it does not know this device, the page asks who it thinks is here. */
function useSignedOut() {
  const client = useQueryClient();
  useEffect(() => {
    const look = () => void again(client, "session");
    window.addEventListener(SIGNED_OUT, look);
    return () => window.removeEventListener(SIGNED_OUT, look);
  }, [client]);
}

export function Notices() {
  useSignedOut();
  const reached = useReach();
  const expired = useSession().data?.expired ?? false;
  const { name } = useReader();
  const { box, entries } = useOutbox();
  const clockSet = useSyncExternalStore(setBack.subscribe, setBack.is);
  const ready = useSyncExternalStore(fresh.subscribe, fresh.ready);
  const [pathname] = useLocation();
  const [open, setOpen] = useState(false);
  const refused = entries.filter((e) => e.refused);
  const waiting = entries.length - refused.length;
  const late = useLate(waiting > 0);
  const asOf = useAsOf(!reached);
  useBack(reached && waiting === 0);
  return (
    <>
      <div role="status" className="no-print">
        {(!reached || late) && (
          <p className="in-the-dark bg-ink px-4 py-1.5 text-paper">
            {!reached && words.offline} {!reached && asOf && words.asOf(asOf)}{" "}
            {waiting > 0 && words.waiting(waiting)}
          </p>
        )}
        {clockSet && <p className="border-b-2 border-warm px-4 py-1">{words.clockSet}</p>}
        {box.full && <p className="border-b-2 border-warm px-4 py-1 font-semibold text-warm">{words.full}</p>}
        {refused.length > 0 && (
          <p className="flex items-center gap-3 border-b-2 border-warm px-4 py-1 text-warm">
            {words.refused(refused.length)}
            <Button look="quiet" onClick={() => setOpen(true)}>
              {words.show}
            </Button>
          </p>
        )}
      </div>
      <Suspense>
        {reached && (expired || box.held === "signed-out") && <Return />}
        {load(picturesKey(name), 0) > 0 && <OnTheirWay clear={reached && waiting === 0} />}
        {ready && !pathname.startsWith("/fish/") && <NewVersion />}
        {!keepable && pathname.startsWith("/fish") && <NotKept />}
      </Suspense>
      {open && refused.length > 0 && (
        <Suspense>
          <Refused box={box} refused={refused} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
