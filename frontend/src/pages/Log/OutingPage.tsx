import { lazy, Suspense, useState } from "react";
import { Link, useLocation, useParams } from "wouter";
import { ApiError, type Schemas } from "../../api/client";
import { Column } from "../../column/Column";
import { EffortLayer, TakesLayer } from "../../column/EffortLayer";
import { BeliefLayer } from "../../column/layers";
import { Empty, Failed, Loading } from "../../components/states";
import { TwoPane } from "../../components/TwoPane";
import { chosenBelief } from "../../lib/cord";
import { spellCount } from "../../lib/counted";
import { useReader } from "../../lib/session";
import { clockText, dayText, hoursText, isToday } from "../../lib/time";
import { depthText, fishText } from "../../lib/units";
import type { Write } from "../../offline/outbox";
import {
  type Event,
  eventBody,
  type Outing,
  outingBody,
  type Spell,
  spellBody,
  TAKE_KINDS,
} from "../../offline/overlay";
import { useOutbox, useOuting } from "../../offline/useOuting";
import { Button } from "../../ui/controls";
import { weightText } from "../../ui/measures";
import { useDone } from "../../ui/UndoBar";
import { Compared } from "./Compared";
import type { Editing, Mend } from "./EditSheet";
import { forgotten, freshSpell } from "./fresh";
import { DepthTable, RateLine } from "./Rates";
import { words } from "./strings";

const photos = () => import("../../photos/Photos");
const Photos = lazy(photos);
const PhotosLayer = lazy(() => photos().then((found) => ({ default: found.PhotosLayer })));
const overDay = () => import("./OverDay");
const OverDay = lazy(overDay);
const Track = lazy(() => overDay().then((found) => ({ default: found.Track })));
const EditSheet = lazy(() => import("./EditSheet"));

export default function OutingPage() {
  const { id = "" } = useParams();
  const found = useOuting(id);
  const { entries } = useOutbox();
  if (found.isPending) return <Loading what={words.openingOuting} />;
  // One made on this device is not there yet.
  const made = entries.some(({ write }) => write.kind === "outing" && write.id === id && write.body);
  if (!made && found.error instanceof ApiError && found.error.status === 404)
    return <Empty page title={words.missing} />;
  if (!found.outing) return <Failed error={found.error} again={() => void found.refetch()} />;
  return <OutingWork outing={found.outing} write={found.write} />;
}

interface Props {
  outing: Outing;
  write: (what: string, w: Write) => void;
}

/** Writes with the way back kept beside them. */
function useMend({ outing, write }: Props): Mend {
  const done = useDone();
  const all = (text: string, there: Write[], back: Write[]) => {
    for (const one of there) write(text, one);
    done({
      text,
      undo: () => {
        for (const one of back) write(`Undo: ${text}`, one);
      },
    });
  };
  const say = (text: string, there: Write, back: Write) => all(text, [there], [back]);
  const eventsOf = (spell: Spell) => outing.events.filter((event) => event.spell_id === spell.id);
  const spellWrite = (spell: Spell, body: Schemas["SpellBody"] | null): Write => ({
    kind: "spell",
    outing: outing.id,
    id: spell.id,
    body,
  });
  const eventWrite = (event: Event, body: Schemas["EventBody"] | null): Write => ({
    kind: "event",
    outing: outing.id,
    id: event.id,
    body,
  });
  return {
    spell: (spell: Spell, body: Schemas["SpellBody"] | null, made = false) =>
      say(
        made ? words.added : body ? words.changed : words.deleted,
        spellWrite(spell, body),
        spellWrite(spell, made ? null : spellBody(spell)),
      ),
    split: (spell: Spell, at: string) => {
      const later = { ...spell, id: crypto.randomUUID() };
      const moved = eventsOf(spell).filter((event) => event.occurred_at >= at);
      all(
        words.wasSplit,
        [
          spellWrite(later, { ...spellBody(spell), started_at: at }),
          spellWrite(spell, { ...spellBody(spell), ended_at: at }),
          ...moved.map((event) => eventWrite(event, { ...eventBody(event), spell_id: later.id })),
        ],
        [
          ...moved.map((event) => eventWrite(event, eventBody(event))),
          spellWrite(spell, spellBody(spell)),
          spellWrite(later, null),
        ],
      );
    },
    join: (spell: Spell, next: Spell) => {
      const moved = eventsOf(next);
      all(
        words.joined,
        [
          spellWrite(spell, { ...spellBody(spell), ended_at: next.ended_at ?? null }),
          ...moved.map((event) => eventWrite(event, { ...eventBody(event), spell_id: spell.id })),
          spellWrite(next, null),
        ],
        [
          spellWrite(next, spellBody(next)),
          ...moved.map((event) => eventWrite(event, eventBody(event))),
          spellWrite(spell, spellBody(spell)),
        ],
      );
    },
    event: (event: Event, body: Schemas["EventBody"] | null, made = false) =>
      say(
        made ? words.added : body ? words.changed : words.deleted,
        eventWrite(event, body),
        eventWrite(event, made ? null : eventBody(event)),
      ),
    outing: (body: Schemas["OutingBody"] | null) =>
      say(
        body ? words.changed : words.deleted,
        { kind: "outing", outing: outing.id, id: outing.id, body },
        { kind: "outing", outing: outing.id, id: outing.id, body: outingBody(outing) },
      ),
  };
}

function EventRow({
  event,
  zone,
  onEdit,
  onDelete,
}: {
  event: Event;
  zone: string;
  onEdit: () => void;
  onDelete: () => void;
}) {
  const { say, settings } = useReader();
  const unit = settings.depth_unit;
  const kind = words.kinds.find((k) => k.value === event.kind)?.label ?? event.kind;
  const size = event.length_m == null ? "" : fishText(unit, event.length_m);
  const about = [
    event.depth_m == null ? "" : depthText(unit, event.depth_m),
    event.phase && event.phase !== "float" ? `on the ${event.phase.replace("-", " ")}` : "",
    event.fly ? say(event.fly) : "",
    event.species ?? "",
    size,
    event.weight_kg == null ? "" : weightText(unit, event.weight_kg),
    event.relative_weight != null
      ? words.condition(event.relative_weight)
      : event.standard_kg != null
        ? words.shouldWeigh(weightText(unit, event.standard_kg))
        : "",
  ].filter(Boolean);
  return (
    <li className="flex items-center gap-2">
      <span className="flex-1">
        {clockText(event.occurred_at, zone)}{" "}
        <b className={TAKE_KINDS.includes(event.kind) ? "text-take" : ""}>{say(kind)}</b> {about.join(" · ")}
      </span>
      <Button
        look="quiet"
        className="!px-2"
        onClick={onEdit}
        aria-label={`${words.edit}: ${kind}, ${clockText(event.occurred_at, zone)}`}
      >
        {words.edit}
      </Button>
      <Button
        look="quiet"
        className="!px-2"
        onClick={onDelete}
        aria-label={`${words.delete}: ${kind}, ${clockText(event.occurred_at, zone)}`}
      >
        {words.delete}
      </Button>
    </li>
  );
}

function OutingWork({ outing, write }: Props) {
  const { say, settings } = useReader();
  const [editing, setEditing] = useState<Editing | null>(null);
  const mend = useMend({ outing, write });
  const [, go] = useLocation();
  const zone = outing.time_zone;
  const belief = outing.plan ? chosenBelief(outing.plan) : undefined;
  const deepest = Math.max(belief?.bed_m ?? 0, outing.by_depth.at(-1)?.bottom_m ?? 0, 2);
  const spells = [...outing.spells].sort((a, b) => a.started_at.localeCompare(b.started_at));
  return (
    <TwoPane
      column={
        <Column bedM={deepest} unit={settings.depth_unit} summary={words.columnOne} className="h-full">
          {belief && <BeliefLayer belief={belief} quiet />}
          <EffortLayer bins={outing.by_depth} />
          <TakesLayer events={outing.events} />
          <Suspense>
            <PhotosLayer outing={outing} />
          </Suspense>
        </Column>
      }
    >
      <div className="space-y-5">
        <div>
          <Link to="/log">{words.back}</Link>
          <h1>
            {dayText(outing.started_at, zone)} · {outing.water_name}
          </h1>
          <p>
            {clockText(outing.started_at, zone)}
            {outing.ended_at ? ` to ${clockText(outing.ended_at, zone)}` : `, ${words.running}`} ·{" "}
            {hoursText(outing.hours)}
          </p>
          {outing.note && <p className="italic">{outing.note}</p>}
          {outing.plan_lost && <p className="border-l-4 border-warm pl-2">{words.planLost}</p>}
        </div>
        <div className="flex flex-wrap gap-2">
          {(!outing.ended_at || isToday(outing.ended_at, zone)) && (
            <Button look="main" onClick={() => go(`/fish/${outing.id}?w=${outing.water_id}`)}>
              {words.goOn}
            </Button>
          )}
          <Button onClick={() => setEditing({ kind: "outing" })}>{words.editOuting}</Button>
          <Button
            look="danger"
            onClick={() => {
              mend.outing(null);
              go("/log");
            }}
          >
            {words.deleteOuting}
          </Button>
        </div>
        <section className="space-y-1" data-testid="rates">
          <RateLine title={words.landed} rate={outing.landed_rate} />
          <RateLine title={words.takes} rate={outing.takes_rate} />
        </section>
        <Suspense>
          <Photos outing={outing} />
          <OverDay outing={outing} />
        </Suspense>
        <Compared outing={outing} />
        <DepthTable bins={outing.by_depth} />
        <section>
          <h2 className="mb-1">{words.spells}</h2>
          <ol className="corded space-y-3">
            {spells.map((spell) => (
              <li key={spell.id} className="knot">
                <div className="flex items-start gap-2">
                  <p className="flex-1">
                    <b>{clockText(spell.started_at, zone)}</b> {say(spell.title)}
                    {spell.count_s != null
                      ? `, ${spellCount(settings.depth_unit, spell, outing.plan?.set_ups[spell.set_up_index ?? -1])}`
                      : spell.depth_m != null && `, ${depthText(settings.depth_unit, spell.depth_m)}`}{" "}
                    <span className="text-soft">
                      · {spell.place} · {say((spell.flies ?? []).join(", "))}
                    </span>
                  </p>
                  <Button
                    look="quiet"
                    className="!px-2"
                    onClick={() => setEditing({ kind: "spell", spell })}
                    aria-label={`${words.edit}: ${spell.title}, ${clockText(spell.started_at, zone)}`}
                  >
                    {words.edit}
                  </Button>
                  <Button
                    look="quiet"
                    className="!px-2"
                    onClick={() => mend.spell(spell, null)}
                    aria-label={`${words.delete}: ${spell.title}, ${clockText(spell.started_at, zone)}`}
                  >
                    {words.delete}
                  </Button>
                </div>
                <ul>
                  {outing.events
                    .filter((e) => e.spell_id === spell.id)
                    .sort((a, b) => a.occurred_at.localeCompare(b.occurred_at))
                    .map((event) => (
                      <EventRow
                        key={event.id}
                        event={event}
                        zone={zone}
                        onEdit={() => setEditing({ kind: "event", event, spell })}
                        onDelete={() => mend.event(event, null)}
                      />
                    ))}
                </ul>
                <Button
                  look="quiet"
                  className="!px-0"
                  aria-label={`${words.add}: ${spell.title}, ${clockText(spell.started_at, zone)}`}
                  onClick={() => setEditing({ kind: "event", event: forgotten(spell), spell, made: true })}
                >
                  {words.add}
                </Button>
              </li>
            ))}
          </ol>
          <Button
            className="mt-2"
            onClick={() => setEditing({ kind: "spell", spell: freshSpell(outing), made: true })}
          >
            {words.addStretch}
          </Button>
        </section>
        <Suspense>
          <Track outing={outing} />
        </Suspense>
      </div>
      {editing && (
        <Suspense>
          <EditSheet
            editing={editing}
            outing={outing}
            zone={zone}
            mend={mend}
            onClose={() => setEditing(null)}
          />
        </Suspense>
      )}
    </TwoPane>
  );
}
