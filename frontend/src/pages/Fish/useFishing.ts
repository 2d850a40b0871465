/** What can be done on the water: each act is written at once and can be taken back. */
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { nowIso, nowMs } from "../../lib/clock";
import { type DepthNow, depthAt } from "../../lib/counted";
import type { Pace } from "../../lib/paces";
import { load, save } from "../../lib/store";
import type { Write } from "../../offline/outbox";
import {
  type Event,
  eventBody,
  type Outing,
  openTake,
  outingBody,
  type Spell,
  spellBody,
} from "../../offline/overlay";
import { loadUndos, saveUndos } from "../../offline/undos";
import { useOuting } from "../../offline/useOuting";

export type Kind = Schemas["EventBody"]["kind"];
type SetUp = Schemas["SetUpOut"];
const FRESH_MS = 90_000;

const now = nowIso;

/** The pace a set-up is fished at; plans of an earlier version name only its kind. */
export function paceOf(setUp: SetUp): Pace {
  return (setUp.retrieve.key || setUp.retrieve.kind) as Pace;
}

export function useFishing(id: string) {
  const query = useOuting(id);
  const { outing, write } = query;
  const clockKey = `clock:${id}`;
  const [castAt, setCastAt] = useState<number | null>(() => load<number | null>(clockKey, null));
  const [undos, setUndos] = useState(() => loadUndos(id));
  // What was tapped here, as it was written: an older answer of the server may come in between and lack it.
  const tapped = useRef(new Map<string, Schemas["EventBody"]>());
  const [kit, setKit] = useState<readonly SetUp[]>([]);
  const water = outing?.water_id;
  useEffect(() => {
    // A rig out of the kit, tied on out there, has its clock from what was kept for that.
    if (water)
      void import("../../offline/ready").then(async ({ keptReady }) =>
        setKit((await keptReady(water))?.kit?.set_ups ?? []),
      );
  }, [water]);
  const spell = useMemo(() => {
    const spells = [...(outing?.spells ?? [])].sort((a, b) => a.started_at.localeCompare(b.started_at));
    return spells.at(-1);
  }, [outing]);
  const setUp =
    outing?.plan?.set_ups[spell?.set_up_index ?? -1] ?? kit.find((one) => one.title === spell?.title);
  const setClock = useCallback(
    (at: number | null) => {
      setCastAt(at);
      save(clockKey, at);
    },
    [clockKey],
  );
  const remember = useCallback(
    (what: string, writes: Write[]) => {
      setUndos((old) => saveUndos(id, [...old, { what, writes }]));
    },
    [id],
  );

  const whereNow = useCallback((): DepthNow & { t: number | null } => {
    const t = castAt === null ? null : (nowMs() - castAt) / 1000;
    const held = {
      depth: spell?.depth_m ?? null,
      low: spell?.low_m ?? null,
      high: spell?.high_m ?? null,
      touching: false,
    };
    if (t === null || !setUp || !spell?.count_s || t >= spell.count_s) return { ...held, t };
    return { ...depthAt(setUp.sink_table, t), t };
  }, [castAt, setUp, spell]);

  /** The fish on the end of an open take is that take: it keeps its moment and its depth, and one undo takes the end back. */
  const end = (strike: Event, kind: Kind, what: string): string => {
    const before = eventBody(strike);
    const body = { ...before, kind };
    tapped.current.set(strike.id, body);
    write(what, { kind: "event", outing: id, id: strike.id, body });
    remember(what, [{ kind: "event", outing: id, id: strike.id, body: before }]);
    setClock(null);
    return strike.id;
  };

  const tap = (kind: Kind, what: string): string => {
    const event = crypto.randomUUID();
    if (!spell) return event;
    // A take tapped a moment ago may not be stored yet; it is the same fish all the same.
    const told = [...tapped.current].map(([key, one]) => ({ ...one, id: key }) as Event);
    const strike =
      kind === "landed" || kind === "lost"
        ? openTake(outing && { ...outing, events: [...outing.events, ...told] }, spell.id)
        : undefined;
    if (strike) return end(strike, kind, what);
    const at = whereNow();
    const sinking =
      at.t !== null && spell.count_s !== null && spell.count_s !== undefined && at.t < spell.count_s;
    // With no count running nobody knows whether it came on the drop or on the way back.
    const phase = spell.method === "float" ? "float" : at.t === null ? "" : sinking ? "drop" : "retrieve";
    const body: Schemas["EventBody"] = {
      spell_id: spell.id,
      kind,
      phase: kind === "blank" || spell.method === "dry" ? "" : phase,
      occurred_at: now(),
      t_s: at.t === null ? null : Math.min(at.t, 7200),
      depth_m: kind === "blank" ? null : at.depth,
      low_m: kind === "blank" ? null : at.low,
      high_m: kind === "blank" ? null : at.high,
      fly: spell.flies?.length === 1 ? (spell.flies[0] ?? "") : "",
      species: "",
      length_m: null,
      released: null,
      note: "",
    };
    tapped.current.set(event, body);
    write(what, { kind: "event", outing: id, id: event, body });
    remember(what, [{ kind: "event", outing: id, id: event, body: null }]);
    if (kind === "blank" || kind === "landed" || kind === "lost") setClock(null);
    return event;
  };

  /** Change the set-up as it is fished; a count that runs goes on where only the depth is another. */
  const change = (part: Partial<Schemas["SpellBody"]>, what: string, keepCount = false) => {
    if (!spell || !outing) return;
    const before = spellBody(spell);
    const fresh =
      nowMs() - new Date(spell.started_at).getTime() < FRESH_MS &&
      !outing.events.some((e) => e.spell_id === spell.id);
    if (fresh) {
      write(what, { kind: "spell", outing: id, id: spell.id, body: { ...before, ...part } });
      remember(what, [{ kind: "spell", outing: id, id: spell.id, body: before }]);
    } else {
      const at = now();
      const next = crypto.randomUUID();
      write(what, { kind: "spell", outing: id, id: spell.id, body: { ...before, ended_at: at } });
      write(what, {
        kind: "spell",
        outing: id,
        id: next,
        body: { ...before, ...part, started_at: at, ended_at: null },
      });
      remember(what, [
        { kind: "spell", outing: id, id: next, body: null },
        { kind: "spell", outing: id, id: spell.id, body: before },
      ]);
    }
    if (!keepCount) setClock(null);
  };

  const describeFish = (event: string, part: Partial<Schemas["EventBody"]>, what: string) => {
    const found = outing?.events.find((e) => e.id === event);
    const before = tapped.current.get(event) ?? (found && eventBody(found));
    if (!before) return;
    const body = { ...before, ...part };
    tapped.current.set(event, body);
    write(what, { kind: "event", outing: id, id: event, body });
  };

  const undo = () => {
    const last = undos.at(-1);
    if (!last) return;
    for (const w of last.writes) {
      write(`Undo: ${last.what}`, w);
      if (w.kind !== "event") continue;
      if (w.body) tapped.current.set(w.id, w.body);
      else tapped.current.delete(w.id);
    }
    setUndos(saveUndos(id, undos.slice(0, -1)));
  };

  /** Resolves once the device has stored that the day is over: only then may the page be left. */
  const stop = async (what: string) => {
    if (!outing || !spell) return;
    const at = now();
    setClock(null);
    write(what, { kind: "spell", outing: id, id: spell.id, body: { ...spellBody(spell), ended_at: at } });
    await write(what, { kind: "outing", outing: id, id, body: { ...outingBody(outing), ended_at: at } });
  };

  /** End an outing in which nothing was fished. */
  const close = (what: string) => {
    if (outing)
      write(what, { kind: "outing", outing: id, id, body: { ...outingBody(outing), ended_at: now() } });
  };

  const reopen = (was: Outing, last: Spell, what: string) => {
    write(what, { kind: "outing", outing: id, id, body: outingBody(was) });
    write(what, { kind: "spell", outing: id, id: last.id, body: spellBody(last) });
  };

  /** An ended outing goes on: the time between is no effort, so the last set-up starts a stretch of its own. */
  const goOn = (what: string) => {
    if (!outing || !spell) return;
    const next = crypto.randomUUID();
    write(what, { kind: "outing", outing: id, id, body: { ...outingBody(outing), ended_at: null } });
    write(what, {
      kind: "spell",
      outing: id,
      id: next,
      body: { ...spellBody(spell), started_at: now(), ended_at: null },
    });
  };

  return {
    ...query,
    spell,
    setUp,
    castAt,
    startClock: () => setClock(nowMs()),
    tap,
    change,
    describeFish,
    undo,
    canUndo: undos.at(-1)?.what ?? null,
    stop,
    close,
    reopen,
    goOn,
  };
}
