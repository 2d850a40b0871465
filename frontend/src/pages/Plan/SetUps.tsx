/** The ways to get a fly there: the plan's own, best first, then what was pinned or made by hand, refused or not. */
import { lazy, Suspense, useState } from "react";
import type { Schemas } from "../../api/client";
import { Failed } from "../../components/states";
import { letter, setUpTitle } from "../../lib/cord";
import { MOST_BY_HAND } from "../../lib/day";
import { useReading } from "../../lib/reading";
import { useRunning } from "../../lib/running";
import { useReader } from "../../lib/session";
import { clockText, dayAndClock } from "../../lib/time";
import { useWater } from "../../lib/waters";
import { handMadeFrom } from "./handMade";
import { HandEditor, SetUpRow } from "./SetUpRow";
import { words } from "./strings";
import { useStart } from "./useStart";

const Sure = lazy(() => import("./Sure"));

type Plan = Schemas["PlanAnswer"];

/** A plan this near to the hour on the clock is a plan for now. */
const SAME_HOUR_MS = 90 * 60_000;

interface Props {
  plan: Plan;
  waterId: string;
  zone: string;
  index: number;
  /** The set-up somebody opened, by name. */
  chosen: string | null;
  onChoose: (key: string) => void;
}

function Pair({ plan }: { plan: Plan }) {
  const { say, settings } = useReader();
  if (!plan.pair) return null;
  return (
    <p className="mt-3 border-l-4 border-rule pl-3">
      <b>{words.pair(settings.afloat ?? false, letter(plan.pair.first), letter(plan.pair.second))}</b>{" "}
      {say(plan.pair.why)}
    </p>
  );
}

export function SetUps({ plan, waterId, zone, index, chosen, onChoose }: Props) {
  const { say } = useReader();
  const { body, draft, change, day, changeDay, planning, mending, previewed } = useReading(
    "body",
    "draft",
    "change",
    "day",
    "changeDay",
    "planning",
    "mending",
    "previewed",
  );
  const { water } = useWater();
  const start = useStart();
  const full = day.byHand.length >= MOST_BY_HAND;
  const refused = plan.ruled_out.filter((one) => one.by_hand != null && day.byHand[one.by_hand]);
  const pin = (at: number) => {
    const pinned = plan.set_ups[at];
    if (!pinned) return;
    changeDay({ byHand: [...day.byHand, handMadeFrom(pinned)] });
    onChoose(`hand-${day.byHand.length}`);
  };
  const running = useRunning().running;
  const here = running !== null && running.outing.water_id === waterId;
  const go = (key: string) =>
    start.mutate({
      body,
      key,
      seen: water && { plan: previewed, water },
      into: here ? running.outing.id : null,
      title: plan.set_ups.find((one) => one.key === key)?.title ?? "",
    });
  const [asking, setAsking] = useState<string | null>(null);
  const other = draft.when !== "" && Math.abs(new Date(body.when).getTime() - Date.now()) > SAME_HOUR_MS;
  const doubts = [
    ...plan.cautions.filter((c) => c.level === "stop").map((c) => `${words.sureStop} ${say(c.sentence)}`),
    ...(running !== null && !here
      ? [words.sureElsewhere(running.outing.water_name, clockText(running.outing.started_at, zone))]
      : []),
    ...(other
      ? [words.sureOther(dayAndClock(body.when, zone), dayAndClock(new Date().toISOString(), zone))]
      : []),
  ];
  const real = plan.set_ups.some((s) => s.expected);
  return (
    <section aria-labelledby="set-ups">
      <h2 id="set-ups">{words.setUps}</h2>
      <p className="mb-3 text-[0.92rem] text-soft">{real ? words.setUpsReal : words.setUpsAbout}</p>
      <ol className="corded space-y-2">
        {plan.set_ups.map((setUp, i) => {
          const made = setUp.by_hand == null ? undefined : day.byHand[setUp.by_hand];
          return (
            <SetUpRow
              key={setUp.key}
              setUp={setUp}
              index={i}
              title={setUpTitle(plan, setUp, say)}
              open={i === index}
              chosen={setUp.key === chosen}
              startWords={here ? words.goOver : words.start}
              onOpen={() => onChoose(setUp.key ?? "")}
              onStart={() => (doubts.length > 0 ? setAsking(setUp.key ?? "") : go(setUp.key ?? ""))}
              wait={
                start.isPending ? words.starting : planning ? words.working : mending ? words.mendFirst : null
              }
              // What is put together by hand is for the place planned for.
              onPin={
                setUp.by_hand == null && !full && setUp.place === plan.belief.chosen ? () => pin(i) : null
              }
              cardTo={`/plan/card?w=${waterId}&s=${encodeURIComponent(setUp.key ?? "")}`}
              editor={
                made && (
                  <HandEditor
                    index={setUp.by_hand ?? 0}
                    made={made}
                    countS={setUp.count_s}
                    leaderM={setUp.leader_length_m}
                  />
                )
              }
            />
          );
        })}
        {refused.map((one) => {
          const made = day.byHand[one.by_hand ?? 0];
          return (
            made && (
              <li key={`refused${one.by_hand}`} className="knot border-b-2 border-rule pb-3">
                <h3 className="text-[1.15rem]">{say(one.what)}</h3>
                <p role="alert" className="border-l-4 border-warm pl-2 text-warm">
                  {say(one.reason)}
                </p>
                <HandEditor index={one.by_hand ?? 0} made={made} countS={null} leaderM={null} />
              </li>
            )
          );
        })}
      </ol>
      {full && <p className="mt-2 text-[0.92rem] text-soft">{words.byHandFull}</p>}
      <Pair plan={plan} />
      {start.isError && <Failed error={start.error} />}
      {asking !== null && (
        <Suspense>
          <Sure
            doubts={doubts}
            onNow={other ? () => change({ when: "" }) : null}
            onGo={() => go(asking)}
            onClose={() => setAsking(null)}
          />
        </Suspense>
      )}
    </section>
  );
}
