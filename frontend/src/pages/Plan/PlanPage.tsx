import { useState } from "react";
import { Link } from "react-router";
import { ApiError, OfflineError, type Schemas } from "../../api/client";
import { SetUpLayer } from "../../column/layers";
import { chosenBelief, ReadingColumn, useRing } from "../../components/ReadingColumn";
import { Empty, Failed, Loading } from "../../components/states";
import { TwoPane } from "../../components/TwoPane";
import { WithWater } from "../../components/WithWater";
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { bandText } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { SetUpRow } from "./SetUpRow";
import { words } from "./strings";
import { useStart } from "./useStart";

export default function PlanPage() {
  return <WithWater>{(water) => <PlanWork water={water} />}</WithWater>;
}

type Answer = Schemas["PlanAnswer"];

function Headline({ plan, water }: { plan: Answer; water: Water }) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const belief = chosenBelief(plan);
  const half = belief?.bands.find((b) => b.share === 0.5);
  const most = belief?.bands.find((b) => b.share === 0.8);
  if (!belief || !half || !most) return null;
  const band = bandText(unit, half.top_m, half.bottom_m);
  return (
    <header>
      <h1>{plan.set_ups.length > 0 ? words.headline(band, belief.place) : words.nothing}</h1>
      <p className="mt-1">
        {words.width(80, bandText(unit, most.top_m, most.bottom_m))}
        {plan.guessed.includes("temperature") && ` ${words.wide}`}
        {plan.guessed.length > 0 && (
          <span className="text-soft"> {words.guessed(plan.guessed.join(", "))}</span>
        )}{" "}
        <Link to={`/water?w=${water.id}`}>{words.readMore}</Link>
      </p>
    </header>
  );
}

function Cautions({ plan }: { plan: Answer }) {
  const { say } = useReader();
  return (
    <ul aria-label={words.cautions} className="space-y-1">
      {plan.cautions.map((caution) => (
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
  if (plan.ruled_out.length === 0) return null;
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">
        {words.ruledOut} ({plan.ruled_out.length})
      </summary>
      <ul className="space-y-1">
        {plan.ruled_out.map((one) => (
          <li key={one.what + one.reason}>
            <b>{say(one.what)}.</b> {say(one.reason)}
          </li>
        ))}
      </ul>
    </details>
  );
}

function Factors({ plan }: { plan: Answer }) {
  const { say } = useReader();
  const belief = chosenBelief(plan);
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.factors}</summary>
      <ul className="space-y-1">
        {belief?.factors.map((factor) => (
          <li key={factor.name} className={factor.known ? "" : "text-soft italic"}>
            <b>{factor.name}</b> ({factor.known ? words.known : words.guess}): {say(factor.sentence)}
          </li>
        ))}
      </ul>
      <h3 className="mt-3">{words.places}</h3>
      <ul>
        {plan.belief.places.map((place) => (
          <li key={place.place}>
            {place.place}: {Math.round(place.share * 100)} %
          </li>
        ))}
      </ul>
    </details>
  );
}

/** No plan can be made: a missing kit is a matter of ticking it, the rest is told as it is. */
function NoPlan({ error, again }: { error: unknown; again: () => void }) {
  const kit =
    error instanceof ApiError && error.problems.some((p) => p.path === "tackle.lines" || p.path === "flies");
  if (!kit) return <Failed error={error} again={again} />;
  return (
    <Empty title={words.noKit}>
      <p>{error.message}</p>
      <Link to="/kit">{words.toKit}</Link>
    </Empty>
  );
}

function PlanWork({ water }: { water: Water }) {
  const { plan, body, planning, mending, error, again } = useReading();
  const [chosen, setChosen] = useState(0);
  const { ring, setRing } = useRing(2);
  const start = useStart();
  const index = plan ? Math.min(chosen, plan.set_ups.length - 1) : 0;
  const lost = error instanceof OfflineError;
  return (
    <TwoPane
      column={
        <ReadingColumn water={water} ring={ring} onRing={setRing}>
          {plan && <SetUpLayer setUps={plan.set_ups} chosen={index} onChoose={setChosen} />}
        </ReadingColumn>
      }
    >
      {(lost || mending) && (
        <p role="status" className="mb-4 border-l-4 border-warm pl-2 text-warm">
          {lost ? words.offline : words.stale}{" "}
          {!lost && <Link to={`/water?w=${water.id}`}>{words.mend}</Link>}
        </p>
      )}
      {!plan && error ? <NoPlan error={error} again={again} /> : null}
      {!plan && !error && planning && <Loading what={words.working} />}
      {plan && (
        <div className="space-y-5" aria-busy={planning}>
          <Headline plan={plan} water={water} />
          {plan.cautions.some((c) => c.level === "stop") && <Cautions plan={plan} />}
          {plan.set_ups.length > 0 && (
            <section aria-labelledby="set-ups">
              <h2 id="set-ups">{words.setUps}</h2>
              <p className="mb-3 text-[0.92rem] text-soft">{words.setUpsAbout}</p>
              <ol className="corded space-y-2">
                {plan.set_ups.map((setUp, i) => (
                  <SetUpRow
                    key={setUp.method}
                    setUp={setUp}
                    index={i}
                    open={i === index}
                    onOpen={() => setChosen(i)}
                    onStart={() => start.mutate({ body, setUp: i })}
                    starting={start.isPending}
                  />
                ))}
              </ol>
              {start.isError && <Failed error={start.error} />}
            </section>
          )}
          {!plan.cautions.some((c) => c.level === "stop") && <Cautions plan={plan} />}
          <div>
            <RuledOut plan={plan} />
            <Factors plan={plan} />
          </div>
        </div>
      )}
    </TwoPane>
  );
}
