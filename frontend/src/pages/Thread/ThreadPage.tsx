/** The thread bench: build a rig, cast it, and see where its flies are at any moment. */
import { lazy, Suspense, useState } from "react";
import type { Problem } from "../../api/client";
import { Failed, Loading } from "../../components/states";
import { useReader } from "../../lib/session";
import { load, save } from "../../lib/store";
import { secondsText } from "../../lib/time";
import { bandText, depthText } from "../../lib/units";
import { Button, Fault } from "../../ui/controls";
import { CastPart } from "./CastPart";
import { FloatPart, LeaderPart, LinePart } from "./RigForm";
import { type Answer, leaderLength, type RigDoc, START } from "./rig";
import { words } from "./strings";
import { TimeStrip, usePlay } from "./TimeStrip";
import { type Thread, useThread } from "./useThread";
import { WaterPicture } from "./WaterPicture";

// The parts below the first screen come after it.
const Calibrate = lazy(() => import("./Calibrate").then((m) => ({ default: m.Calibrate })));
const Counts = lazy(() => import("./Counts").then((m) => ({ default: m.Counts })));
const FloatPanel = lazy(() => import("./FloatPanel").then((m) => ({ default: m.FloatPanel })));
const FlyPart = lazy(() => import("./FlyPart").then((m) => ({ default: m.FlyPart })));
const LeaderCut = lazy(() => import("./LeaderCut").then((m) => ({ default: m.LeaderCut })));
const Rigs = lazy(() => import("./Rigs").then((m) => ({ default: m.Rigs })));

const SHOWN =
  /^(line\.|leader\[|flies\[\d+\]\.|float\.|cast_m|countdown_s|slack|retrieve|water_|bed|drift_m_s|target_band_m)/;

function nameOf(rig: RigDoc, length: string): string {
  const line = rig.line.family === "floating" ? "floating" : `${rig.line.family} ${rig.line.label_ips} in/s`;
  return `${line} · ${length}${rig.float ? ` · ${rig.float.type}` : ` · ${rig.countdown_s} s`}`;
}

/** What happened on this cast, in words. */
function Story({ answer, rig }: { answer: Answer; rig: RigDoc }) {
  const { settings, say } = useReader();
  const unit = settings.depth_unit;
  const point = answer.flies.at(-1);
  const touch = answer.bottom;
  return (
    <section className="space-y-1" data-testid="story">
      {point && !rig.float && <p>{words.runs(bandText(unit, point.min_m, point.max_m))}</p>}
      <p className={touch ? "font-bold text-warm" : ""}>
        {touch
          ? words.touch(touch.fly, secondsText(touch.t_s), depthText(unit, touch.x_m, 0))
          : words.noTouch}
      </p>
      {answer.flies.map(
        (fly) =>
          fly.time_in_band_s != null && (
            <p key={fly.name}>{words.inBand(fly.name, secondsText(fly.time_in_band_s))}</p>
          ),
      )}
      {point && point.film_retrieve_m > 0.5 && <p>{words.film(depthText(unit, point.film_retrieve_m))}</p>}
      <details>
        <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.notes}</summary>
        <ul className="list-disc pl-5 text-soft">
          {answer.notes.map((note) => (
            <li key={note}>{say(note)}</li>
          ))}
        </ul>
      </details>
    </section>
  );
}

function Faults({ problems }: { problems: Problem[] }) {
  const loose = problems.filter((p) => !SHOWN.test(p.path));
  if (problems.length === 0) return null;
  return (
    <div className="mb-3">
      <p role="status" className="font-bold text-warm">
        {words.faults}
      </p>
      {loose.map((p) => (
        <Fault key={p.path + p.message} problem={p} />
      ))}
    </div>
  );
}

function Scene({
  thread,
  rig,
  other,
  otherThread,
}: {
  thread: Thread;
  rig: RigDoc;
  other: RigDoc | null;
  otherThread: Thread;
}) {
  const answer = thread.answer;
  const end = Math.max(answer?.end_s ?? 1, other ? (otherThread.answer?.end_s ?? 1) : 1);
  const play = usePlay(end);
  if (!answer) return <Loading what={words.working} />;
  const beside = other && otherThread.answer ? { rig: other, answer: otherThread.answer } : null;
  return (
    <>
      <div className="min-h-0 flex-1">
        <WaterPicture main={{ rig, answer }} other={beside} t={play.t} />
      </div>
      <TimeStrip answer={answer} rig={rig} banded={thread.banded} play={play} />
    </>
  );
}

export default function ThreadPage() {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const [rig, setRig] = useState<RigDoc>(() => load<RigDoc>("bench", START));
  const [drawn, setDrawn] = useState<RigDoc>(rig);
  const [other, setOther] = useState<RigDoc | null>(null);
  const thread = useThread(rig);
  const otherThread = useThread(other);
  const change = (next: RigDoc) => {
    setRig(next);
    save("bench", next);
  };
  // A picture belongs to the last rig that could be fished.
  if (thread.problems.length === 0 && thread.answer && drawn !== rig) setDrawn(rig);
  const parts = { rig, onChange: change, problems: thread.problems };
  const failed = !thread.answer && thread.problems.length === 0 && thread.error;
  return (
    <div className="flex flex-1 flex-col wide:grid wide:grid-cols-[minmax(0,56vw)_minmax(0,1fr)]">
      <div
        aria-busy={thread.busy}
        className="sticky top-0 z-[5] flex h-[25rem] flex-col border-b-2 border-ink bg-paper wide:top-14 wide:h-[calc(100dvh-3.5rem)] wide:border-r-2 wide:border-b-0"
      >
        {failed ? (
          <Failed error={thread.error} />
        ) : (
          <Scene thread={thread} rig={drawn} other={other} otherThread={otherThread} />
        )}
      </div>
      <div className="min-w-0 px-4 py-5 wide:px-7">
        <header className="mb-3">
          <h1>{words.title}</h1>
          <p className="text-soft">{words.lead}</p>
        </header>
        <Faults problems={thread.problems} />
        {thread.answer && <Story answer={thread.answer} rig={drawn} />}
        <p className="my-2 flex flex-wrap items-center gap-2">
          {other ? (
            <>
              <span className="border-l-4 border-dashed border-soft pl-2">
                {words.kept}
                {nameOf(other, depthText(unit, leaderLength(other)))}
              </span>
              <Button look="quiet" onClick={() => setOther(null)}>
                {words.drop2}
              </Button>
            </>
          ) : (
            <Button onClick={() => setOther(rig)}>{words.keep}</Button>
          )}
        </p>
        <LinePart {...parts} />
        <Suspense fallback={<Loading what={words.working} />}>
          <FlyPart {...parts} />
          <CastPart {...parts} />
          <LeaderPart {...parts}>
            <LeaderCut rig={rig} onChange={change} />
          </LeaderPart>
          <FloatPart {...parts}>
            <FloatPanel rig={drawn} answer={thread.answer} />
          </FloatPart>
          <Counts rig={rig} />
          <Calibrate rig={rig} onChange={change} />
          <Rigs rig={rig} onLoad={change} />
        </Suspense>
      </div>
    </div>
  );
}
