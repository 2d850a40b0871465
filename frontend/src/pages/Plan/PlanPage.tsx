import { lazy, Suspense, useState } from "react";
import { Link, useSearchParams } from "wouter";
import { ApiError, OfflineError, type Schemas } from "../../api/client";
import { InHand } from "../../components/InHand";
import { JumpLinks } from "../../components/JumpLinks";
import { ProfileAge } from "../../components/ProfileAge";
import { Empty, Failed, Loading } from "../../components/states";
import { words as shellWords } from "../../components/strings";
import { TwoPane } from "../../components/TwoPane";
import { WithWater } from "../../components/WithWater";
import { chosenBelief, useRing } from "../../lib/cord";
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { dayAndClock } from "../../lib/time";
import { bandText } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Button } from "../../ui/controls";
import { OnTheGo } from "./OnTheGo";
import { useDepthWords } from "./SetUpRow";
import { SetUps } from "./SetUps";
import { words } from "./strings";
import { useCalendar } from "./useCalendar";
import { useWhatIf } from "./useWhatIf";

const Changed = lazy(() => import("./Changed"));
const Compare = lazy(() => import("./Compare"));
const DayFor = lazy(() => import("./DayFor"));
const Factors = lazy(() => import("./Factors"));
// The picture comes a moment after the words.
const PlanColumn = lazy(() => import("./PlanColumn"));
const WhatIf = lazy(() => import("./WhatIf"));
const SchoolsPart = lazy(() => import("./SchoolsPart"));

export default function PlanPage() {
  return <WithWater>{(water) => <PlanWork water={water} />}</WithWater>;
}

type Answer = Schemas["PlanAnswer"];

function Headline({ plan, water }: { plan: Answer; water: Water }) {
  const { settings, say } = useReader();
  const depthWords = useDepthWords();
  const first = plan.set_ups[0];
  const { body, draft, change, older } = useReading("body", "draft", "change", "older");
  const unit = settings.depth_unit;
  const belief = chosenBelief(plan);
  const half = belief?.bands.find((b) => b.share === 0.5);
  const most = belief?.bands.find((b) => b.share === 0.8);
  if (!belief || !half || !most) return null;
  const band = bandText(unit, half.top_m, half.bottom_m);
  return (
    <header>
      <h1>
        {plan.set_ups.length > 0 ? words.headline(band, belief.place) : words.nothing},{" "}
        <span className="font-normal whitespace-nowrap" data-testid="plan-for">
          {draft.when === "" && words.nowIs} {dayAndClock(body.when, water.time_zone ?? "UTC")}
        </span>
      </h1>
      {draft.when !== "" && !older && (
        <Button look="quiet" className="!px-0" onClick={() => change({ when: "" })}>
          {words.planNow}
        </Button>
      )}
      {first && (
        <p className="mt-1 text-[1.1rem]">
          <b>{say(first.title)}.</b> {depthWords(first)}.{" "}
          {first.reasons[0] && (
            <span>
              <span className="text-soft">{words.whyHere}</span> {say(first.reasons[0].sentence)}
            </span>
          )}
        </p>
      )}
      <p className="mt-1">
        {words.width(80, bandText(unit, most.top_m, most.bottom_m))} <ProfileAge water={water} />
        {plan.guessed.includes("temperature") && ` ${words.wide}`}
        {plan.guessed.length > 0 && (
          <span className="text-soft"> {words.guessed(plan.guessed.join(", "))}</span>
        )}{" "}
        <Link to={`/water?w=${water.id}`}>{words.readMore}</Link>
      </p>
    </header>
  );
}

/** What to stop for or to mind, or the usual notes. */
function Cautions({ plan, notes = false }: { plan: Answer; notes?: boolean }) {
  const { say } = useReader();
  const found = plan.cautions.filter((caution) => (caution.level === "note") === notes);
  if (found.length === 0) return null;
  return (
    <ul aria-label={notes ? words.notes : words.cautions} className="space-y-1">
      {found.map((caution) => (
        <li
          key={caution.code}
          className={`border-l-4 pl-2 ${caution.level === "stop" ? "border-warm text-[1.1rem] font-bold" : caution.level === "caution" ? "border-warm" : "border-rule text-soft"}`}
        >
          <b className={caution.level === "note" ? "" : "text-warm"}>{words.levels[caution.level]}.</b>{" "}
          {say(caution.sentence)}
        </li>
      ))}
    </ul>
  );
}

function RuledOut({ plan }: { plan: Answer }) {
  const { say } = useReader();
  const others = plan.ruled_out.filter((one) => one.by_hand == null);
  if (others.length === 0) return null;
  const kinds = [...new Set(others.map((one) => one.kind))];
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">
        {words.ruledOut} ({others.length})
      </summary>
      {kinds.map((kind) => {
        const these = others.filter((one) => one.kind === kind);
        return (
          <section key={kind} className="mb-2">
            <h3 className="text-base">
              {words.ruledOutBy[kind]} ({these.length})
            </h3>
            <ul className="space-y-1">
              {these.map((one) => (
                <li key={one.what + one.reason}>
                  <b>{say(one.what)}.</b> {say(one.reason)}
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </details>
  );
}

/** No plan can be made: a missing kit is a matter of ticking it, the rest is told as it is. */
function NoPlan({ error }: { error: unknown }) {
  const { again } = useReading("again");
  const kit =
    error instanceof ApiError && error.problems.some((p) => p.path === "tackle.lines" || p.path === "flies");
  if (!kit) return <Failed error={error} again={again} />;
  return (
    <Empty page title={words.noKit}>
      <p>{error.message}</p>
      <Link to="/kit">{words.toKit}</Link>
    </Empty>
  );
}

function Notice({ water }: { water: Water }) {
  const { mending, error, problemAt, changeDay, day } = useReading(
    "mending",
    "error",
    "problemAt",
    "changeDay",
    "day",
  );
  const lost = error instanceof OfflineError;
  const hand = day.byHand.some((_, n) =>
    ["line", "flies[0]", "flies[1]", "flies[2]", "style"].some((part) => problemAt(`by_hand[${n}].${part}`)),
  );
  if (!lost && !mending) return null;
  return (
    <p role="status" className="mb-4 border-l-4 border-warm pl-2 text-warm">
      {lost ? words.offline : hand ? words.staleHand : words.stale}{" "}
      {!lost && hand && (
        <Button look="danger" onClick={() => changeDay({ byHand: [] })}>
          {words.throwAll}
        </Button>
      )}
      {!lost && !hand && <Link to={`/water?w=${water.id}`}>{words.mend}</Link>}
    </p>
  );
}

function More({
  plan,
  shown,
  onShow,
}: {
  plan: Answer;
  shown: string | null;
  onShow: (name: string | null) => void;
}) {
  const [schools, setSchools] = useState(false);
  const { body } = useReading("body");
  const calendar = useCalendar();
  return (
    <div id="more" className="scroll-mt-16">
      {plan.set_ups.length > 1 && (
        <details>
          <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.compare}</summary>
          <Suspense fallback={<Loading what={words.moment} />}>
            <Compare plan={plan} />
          </Suspense>
        </details>
      )}
      <Suspense>
        <Factors plan={plan} shown={shown} onShow={onShow} />
      </Suspense>
      <details onToggle={(e) => setSchools(e.currentTarget.open)}>
        <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.schools}</summary>
        {schools && (
          <Suspense fallback={<Loading what={words.moment} />}>
            <SchoolsPart />
          </Suspense>
        )}
      </details>
      <RuledOut plan={plan} />
      {plan.set_ups.length > 0 && (
        <p className="mt-3 flex flex-wrap items-center gap-3">
          <Button onClick={() => calendar.mutate(body)} disabled={calendar.isPending}>
            {calendar.isPending ? words.calendarWorking : words.calendar}
          </Button>
          <Link
            to={`/kit/box?w=${body.water_id}#ties`}
            className="inline-flex min-h-11 items-center font-semibold"
          >
            {words.tieList}
          </Link>
        </p>
      )}
      {calendar.isError && <Failed error={calendar.error} />}
    </div>
  );
}

function PlanWork({ water }: { water: Water }) {
  const { plan, planning, error } = useReading("plan", "planning", "error");
  const { settings } = useReader();
  const [search, setSearch] = useSearchParams();
  const chosen = search.get("s");
  const setChosen = (key: string) =>
    setSearch(
      (old) => {
        old.set("s", key);
        return old;
      },
      { replace: true },
    );
  const [shown, setShown] = useState<string | null>(null);
  const { ring, setRing } = useRing(2);
  const tried = useWhatIf(water);
  const [trying, setTrying] = useState(false);
  // By name, not by number: a new reading ranks them anew, and the one that is open stays open.
  const index = Math.max(0, plan?.set_ups.findIndex((s) => s.key === chosen) ?? 0);
  const choose = (at: number) => setChosen(plan?.set_ups[at]?.key ?? "");
  const belief = plan ? chosenBelief(plan) : undefined;
  const factor = belief?.factors.find((one) => one.name === shown);
  return (
    <TwoPane
      column={
        <Suspense>
          <PlanColumn
            water={water}
            ring={ring}
            onRing={setRing}
            index={index}
            onChoose={choose}
            factor={factor}
            tried={tried.after}
          />
        </Suspense>
      }
    >
      <InHand water={water} />
      <Notice water={water} />
      {!plan && error ? <NoPlan error={error} /> : null}
      {!plan && !error && planning && <Loading what={words.working} />}
      {plan && (
        <div className="space-y-5" aria-busy={planning}>
          <OnTheGo water={water} />
          <Headline plan={plan} water={water} />
          <Cautions plan={plan} />
          <JumpLinks label={shellWords.onPage} parts={words.parts} />
          <Suspense>
            <DayFor key={settings.depth_unit} />
          </Suspense>
          <details onToggle={(e) => setTrying(e.currentTarget.open)}>
            <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.whatIf.title}</summary>
            {trying && (
              <Suspense fallback={<Loading what={words.moment} />}>
                <WhatIf one={tried} />
              </Suspense>
            )}
          </details>
          <Suspense>
            <Changed />
          </Suspense>
          {(plan.set_ups.length > 0 || plan.ruled_out.some((r) => r.by_hand != null)) && (
            <SetUps
              plan={plan}
              waterId={water.id}
              zone={water.time_zone ?? "UTC"}
              index={index}
              chosen={chosen}
              onChoose={setChosen}
            />
          )}
          <Cautions plan={plan} notes />
          <More plan={plan} shown={shown} onShow={setShown} />
        </div>
      )}
    </TwoPane>
  );
}
