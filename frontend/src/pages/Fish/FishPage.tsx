import { lazy, Suspense, useEffect, useState } from "react";
import { Link, Redirect, useLocation, useParams } from "wouter";
import { ApiError } from "../../api/client";
import { Column } from "../../column/Column";
import { TakesLayer } from "../../column/EffortLayer";
import { BeliefLayer } from "../../column/layers";
import { Empty, Failed, Loading } from "../../components/states";
import { nowMs } from "../../lib/clock";
import { beliefAt } from "../../lib/cord";
import { atCount, depthAt, spellCount } from "../../lib/counted";
import { useReach } from "../../lib/reach";
import { useRunning } from "../../lib/running";
import { useReader } from "../../lib/session";
import { clockText, hoursText, isToday } from "../../lib/time";
import { bandText, depthText, FOOT_M } from "../../lib/units";
import { type Outing, openTake, type Spell, TAKE_KINDS } from "../../offline/overlay";
import { Button } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { Clock, FlyLayer, nowDepth, useAwake, useElapsed } from "./Clock";
import { words } from "./strings";
import { useAhead } from "./useAhead";
import { type Kind, useFishing } from "./useFishing";
import { liveBelief, type Step, spellOf, useNext } from "./useNext";

const ChangeSheet = lazy(() => import("./ChangeSheet"));
const TurnSheet = lazy(() => import("./TurnSheet"));
const TogetherSheet = lazy(() => import("./TogetherSheet"));
const Below = lazy(() => import("./Below"));
const DarkNext = lazy(() => import("./DarkNext"));
const NextStrip = lazy(() => import("./NextStrip"));
const Ready = lazy(() => import("./Ready"));
const FishSheet = lazy(() => import("./FishSheet"));
const Join = lazy(() => import("./Join"));
const Beside = lazy(() => import("./Together"));
const KINDS: Kind[] = ["take", "landed", "pluck", "lost", "follow", "weed", "bottom", "blank"];

export default function FishPage() {
  const { id } = useParams();
  return id ? <OnTheWater key={id} id={id} /> : <FindOuting />;
}

/** The outing still running, if there is one. */
function FindOuting() {
  const found = useRunning();
  if (found.isPending) return <Loading what={words.looking} />;
  if (found.isLoadingError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const open = found.running?.outing;
  if (open) return <Redirect to={`/fish/${open.id}?w=${open.water_id}`} replace />;
  return (
    <Empty page title={words.none}>
      <Suspense>
        <Ready />
      </Suspense>
      <p>{words.noneAbout}</p>
      <Link
        to="/plan"
        className="inline-flex min-h-11 items-center rounded-md border-2 border-water bg-water px-4 font-semibold text-on-water no-underline"
      >
        {words.toPlan}
      </Link>
      <Suspense>
        <Join />
      </Suspense>
    </Empty>
  );
}

function OnTheWater({ id }: { id: string }) {
  const fishing = useFishing(id);
  const { outing, spell } = fishing;
  if (fishing.isPending) return <Loading what={words.opening} />;
  if (!outing && fishing.error instanceof ApiError && fishing.error.status === 404)
    return <Empty page title={words.missing} />;
  if (!outing) return <Failed error={fishing.error} again={() => void fishing.refetch()} />;
  if (!outing.ended_at && !spell) {
    return (
      <Empty page title={words.startHere}>
        <Suspense>
          <Beside outing={outing} />
          <Ready into={outing.id} />
        </Suspense>
        <p>
          <Link to={`/plan?w=${outing.water_id}`}>{words.toPlan}</Link>
        </p>
        <Button look="danger" onClick={() => fishing.close(words.stop)}>
          {words.stop}
        </Button>
      </Empty>
    );
  }
  if (outing.ended_at || !spell) {
    return (
      <Empty page title={words.over}>
        {spell && outing.ended_at && isToday(outing.ended_at, outing.time_zone) && (
          <Button look="main" onClick={() => fishing.goOn(words.goOn)}>
            {words.goOn}
          </Button>
        )}
        <Link to={`/log/${id}`}>{words.toLog}</Link>
      </Empty>
    );
  }
  return <Boat fishing={fishing} outing={outing} spell={spell} />;
}

/** The minutes of this stretch and since the last take, by the clock on the wall. */
function useMinutes(outing: Outing, spell: Spell) {
  const [, tick] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => tick((n) => n + 1), 15_000);
    return () => clearInterval(timer);
  }, []);
  const ago = (at: string) => Math.max(0, Math.floor((nowMs() - new Date(at).getTime()) / 60_000));
  const takes = outing.events.filter((e) => TAKE_KINDS.includes(e.kind)).map((e) => e.occurred_at);
  const last = takes.sort().at(-1);
  return { here: ago(spell.started_at), since: last ? ago(last) : null };
}

function Tally({ outing, spell }: { outing: Outing; spell: Spell }) {
  const { here, since } = useMinutes(outing, spell);
  const takes = outing.events.filter((e) => TAKE_KINDS.includes(e.kind)).length;
  const landed = outing.events.filter((e) => e.kind === "landed").length;
  const hours = (nowMs() - new Date(outing.started_at).getTime()) / 3_600_000;
  return (
    <p className="text-soft" data-testid="tally">
      {words.tally(takes, landed, hoursText(hours))}. {words.here(here, since)}
    </p>
  );
}

type Warned = ReturnType<typeof useAhead>;

/** What to stop for stands over everything on the water, and what the next hour brings below it. */
function Stops({ warned, zone }: { warned: Warned; zone: string }) {
  const { say } = useReader();
  return (
    <div role="status">
      {warned.stops.map((one) => (
        <p
          key={one.code}
          data-testid="warnings"
          className="border-l-4 border-warm pl-2 leading-tight font-bold"
        >
          <span className="text-warm">{words.stopLevel}</span>{" "}
          {one.since && words.since(clockText(one.since, zone))} {say(one.sentence)}
        </p>
      ))}
      {warned.soon.map((one) => (
        <p key={one.code + one.level} className="border-l-4 border-warm pl-2 leading-tight">
          <b className="text-warm">{words.from(clockText(one.since, zone))}</b> {say(one.sentence)}
        </p>
      ))}
    </div>
  );
}

/** What to take care of: open where it came by itself, at hand below the buttons where the plan said it. */
function Cares({ warned, zone }: { warned: Warned; zone: string }) {
  const { say } = useReader();
  const found = warned.cares;
  if (found.length === 0) return null;
  const came = found.some((one) => one.since);
  return (
    <details className="border-l-4 border-warm pl-2" open={came || undefined}>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold text-warm">
        {words.care(found.length)}
      </summary>
      {found.map((one) => (
        <p key={one.code}>
          {one.since && <b>{words.since(clockText(one.since, zone))}</b>} {say(one.sentence)}
        </p>
      ))}
    </details>
  );
}

interface BoatProps {
  fishing: ReturnType<typeof useFishing>;
  outing: Outing;
  spell: Spell;
}

function DepthButtons({ fishing, spell }: Omit<BoatProps, "outing">) {
  const { settings, say } = useReader();
  const { setUp } = fishing;
  const unit = settings.depth_unit;
  const letDown = setUp?.style === "dangle" && spell.count_s == null;
  const by = (way: 1 | -1) => {
    if (spell.method === "float" || letDown) {
      const step = unit === "m" ? 0.3 : FOOT_M;
      const bed = setUp?.float_hang_m ?? 0;
      const depth = Math.max(0.2, (spell.depth_m ?? bed) + way * step);
      fishing.change(
        { depth_m: depth, low_m: depth, high_m: depth },
        `${words.depthLabel} ${depthText(unit, depth)}`,
        true,
      );
    } else if (setUp && spell.count_s !== null && spell.count_s !== undefined) {
      fishing.change(atCount(setUp, spell.count_s + way * 5), `${words.depthLabel}: count`, true);
    }
  };
  if (spell.method === "dry" || (spell.method !== "float" && spell.count_s == null && !letDown)) return null;
  const band = spell.low_m != null && spell.high_m != null ? bandText(unit, spell.low_m, spell.high_m) : "";
  const at = spell.depth_m != null && setUp?.estimate_m !== null ? depthText(unit, spell.depth_m) : band;
  const text = spell.count_s != null ? spellCount(unit, spell, setUp) : letDown ? at : say(`float ${at}`);
  return (
    <div className="grid grid-cols-[3.6rem_1fr_3.6rem] items-center gap-1.5">
      <Button aria-label={words.shallower} className="min-h-12 !px-0 text-2xl" onClick={() => by(-1)}>
        −
      </Button>
      <p className="text-center leading-tight font-semibold" data-testid="set-depth">
        {text}
      </p>
      <Button aria-label={words.deeper} className="min-h-12 !px-0 text-2xl" onClick={() => by(1)}>
        +
      </Button>
    </div>
  );
}

function Boat({ fishing, outing, spell }: BoatProps) {
  const { settings, say } = useReader();
  const [changing, setChanging] = useState(false);
  const [turning, setTurning] = useState(false);
  const [sharing, setSharing] = useState(false);
  const [fish, setFish] = useState<string | null>(null);
  const done = useDone();
  const [, go] = useLocation();
  const elapsed = useElapsed(fishing.castAt);
  const warned = useAhead(outing);
  useEffect(() => {
    // Fetched while there is signal, so that they open without it.
    void import("./ChangeSheet");
    void import("./FishSheet");
  }, []);
  useAwake(fishing.castAt !== null);
  const asked = useNext(outing, spell).data;
  const reached = useReach();
  const take = (step: Step) => fishing.change(spellOf(step, outing), words.nextTitle);
  const planned = outing.plan ? beliefAt(outing.plan, spell.place) : undefined;
  const belief = liveBelief(asked, spell.place || planned?.place || "", planned);
  const playing = openTake(outing, spell.id) !== undefined;
  const at = nowDepth(fishing.setUp, spell, elapsed);
  const counted =
    fishing.setUp && spell.count_s != null ? depthAt(fishing.setUp.sink_table, spell.count_s).depth : null;
  const target = counted ?? spell.depth_m ?? null;
  const tap = (kind: Kind) => {
    const event = fishing.tap(kind, words.kinds[kind]);
    if (kind === "landed") setFish(event);
  };
  const stop = async () => {
    const was = outing;
    const last = spell;
    await fishing.stop(words.stop);
    done({
      text: words.stopped,
      undo: () => {
        fishing.reopen(was, last, words.undo);
        go(`/fish/${outing.id}?w=${outing.water_id}`);
      },
    });
    go(`/log/${outing.id}`);
  };
  return (
    <div className="grid flex-1 grid-cols-[6.4rem_minmax(0,1fr)] wide:grid-cols-[minmax(14rem,26vw)_minmax(0,30rem)_minmax(14rem,1fr)]">
      <Column
        bedM={belief?.bed_m ?? outing.max_depth_m}
        unit={settings.depth_unit}
        summary={words.column(
          at.depth === null ? words.unknownDepth : depthText(settings.depth_unit, at.depth),
        )}
        className="sticky top-0 h-[calc(100dvh-6.6rem)] border-r-2 border-ink wide:top-14 max-wide:row-span-2 wide:h-[calc(100dvh-3.5rem)]"
      >
        {belief && <BeliefLayer belief={belief} quiet />}
        <TakesLayer events={outing.events} />
        <FlyLayer at={at} targetM={target} />
      </Column>
      <div className="space-y-2.5 px-3 py-2 wide:px-8 wide:py-5">
        <div>
          <Stops warned={warned} zone={outing.time_zone} />
          <h1 className="text-[1.25rem] wide:text-[1.6rem]">{say(spell.title)}</h1>
          <Tally outing={outing} spell={spell} />
          <Suspense>
            <Beside outing={outing} />
          </Suspense>
        </div>
        {!warned.off && (
          <Suspense>
            {reached && asked && <NextStrip advice={asked} playing={playing} onTake={take} />}
            <DarkNext outing={outing} spell={spell} playing={playing} onTake={take} />
          </Suspense>
        )}
        <Clock setUp={fishing.setUp} spell={spell} elapsed={elapsed} onCast={fishing.startClock} />
        <DepthButtons fishing={fishing} spell={spell} />
        <div className="grid grid-cols-2 gap-1.5">
          {KINDS.map((kind) => (
            <Button
              key={kind}
              onClick={() => tap(kind)}
              className={`min-h-12 !px-1 text-[1.05rem] ${kind === "take" || kind === "landed" ? "!border-take !bg-take !text-raised" : ""} ${kind === "blank" ? "leading-tight" : ""}`}
            >
              {say(words.kinds[kind])}
            </Button>
          ))}
        </div>
        <div className="grid grid-cols-2 gap-1.5">
          <Button onClick={() => setChanging(true)} className="!px-1 leading-tight">
            {words.change}
          </Button>
          <Button
            onClick={fishing.undo}
            disabled={fishing.canUndo === null}
            className="overflow-hidden !px-1 leading-tight"
          >
            {words.undo}
            {fishing.canUndo && (
              <span className="block text-[0.85rem] font-normal">{say(fishing.canUndo)}</span>
            )}
          </Button>
        </div>
      </div>
      <div className="max-wide:col-start-2 max-wide:px-3 wide:py-5 wide:pr-8">
        <Cares warned={warned} zone={outing.time_zone} />
        <Button onClick={() => setTurning(true)} className="my-2 min-h-12 w-full">
          {words.turned}
        </Button>
        <Button onClick={() => setSharing(true)} className="mb-2 min-h-12 w-full">
          {words.together}
        </Button>
        <Suspense>
          <Below outing={outing} spell={spell} setUp={fishing.setUp} />
        </Suspense>
        <Button look="danger" onClick={stop} className="mt-10 mb-4 min-h-12 w-full">
          {words.stop}
        </Button>
      </div>
      <Suspense>
        {turning && <TurnSheet outing={outing} place={spell.place ?? ""} onClose={() => setTurning(false)} />}
        {sharing && <TogetherSheet outing={outing} onClose={() => setSharing(false)} />}
        {changing && (
          <ChangeSheet
            onClose={() => setChanging(false)}
            outing={outing}
            spell={spell}
            onChange={(part) => fishing.change(part, words.changed)}
          />
        )}
        {fish !== null && (
          <FishSheet
            onClose={() => setFish(null)}
            flies={spell.flies ?? []}
            outing={outing}
            event={fish}
            onSave={(part) => fishing.describeFish(fish, part, words.kinds.landed)}
          />
        )}
      </Suspense>
    </div>
  );
}
