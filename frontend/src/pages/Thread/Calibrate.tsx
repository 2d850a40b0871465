/** One timed metre, one timed fly, a felt bottom or a cocked float: what each says, and how the band narrows. */
import { useState } from "react";
import { ApiError } from "../../api/client";
import { useKit, usePutLine } from "../../lib/kit";
import { useReader } from "../../lib/session";
import { secondsText } from "../../lib/time";
import { bandText } from "../../lib/units";
import { Button, Choice, Fault } from "../../ui/controls";
import { Amount, useUnits } from "./Amount";
import { Part } from "./RigForm";
import { faultAt, type RigDoc } from "./rig";
import { words } from "./strings";
import { useCalibrate, useCheck } from "./useThread";

interface Props {
  rig: RigDoc;
  onChange: (rig: RigDoc) => void;
}

/** Lines in the kit that are this one: same family, rate, class and tip. */
function useSameLine(rig: RigDoc) {
  const kit = useKit();
  return kit.data?.lines.find(
    (one) =>
      one.family === rig.line.family &&
      one.label_ips === rig.line.label_ips &&
      one.weight_class === rig.line.weight_class &&
      one.tip_length_m === (rig.line.tip_length_m ?? 0),
  );
}

function Timing({ rig, onChange }: Props) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const units = useUnits();
  const ask = useCalibrate();
  const put = usePutLine();
  const same = useSameLine(rig);
  const sinks = rig.line.family !== "floating";
  const [what, setWhat] = useState<"line" | "fly">(sinks ? "line" : "fly");
  const [distance, setDistance] = useState(1);
  const [seconds, setSeconds] = useState(12);
  const [repeats, setRepeats] = useState(1);
  const problems = ask.error instanceof ApiError ? ask.error.problems : [];
  const shown = ["distance_m", "seconds"];
  const elsewhere = problems.find((p) => !shown.includes(p.path));
  const told = ask.data;
  const store = () => {
    if (!same || !told) return;
    const { id, revision: _revision, title: _title, label_doubt: _doubt, ...body } = same;
    put.mutate({ id, body: { ...body, measured_m_s: told.speed_m_s } });
  };
  const band = (pair: { p10_m: number; p90_m: number }) => bandText(unit, pair.p10_m, pair.p90_m);
  return (
    <div className="space-y-3">
      <p className="text-soft">{words.timeAbout}</p>
      <Choice
        label={words.what}
        required
        value={what}
        options={words.whats as { value: "line" | "fly"; label: string }[]}
        onChange={(v) => v && setWhat(v)}
      />
      <div className="flex flex-wrap items-end gap-3">
        <Amount
          label={words.distance}
          unit={units.length}
          value={distance}
          onChange={setDistance}
          problem={faultAt(problems, "distance_m")}
        />
        <Amount
          label={words.took}
          unit={units.seconds}
          value={seconds}
          onChange={setSeconds}
          problem={faultAt(problems, "seconds")}
        />
        <Amount
          label={words.repeats}
          unit={units.count}
          value={repeats}
          onChange={(v) => setRepeats(Math.max(1, Math.round(v)))}
          className="w-20"
        />
        <Button
          look="main"
          disabled={ask.isPending}
          onClick={() => ask.mutate({ what, distance_m: distance, seconds, repeats, rig })}
        >
          {words.calibrate}
        </Button>
      </div>
      {elsewhere && <Fault problem={elsewhere} />}
      {told && (
        <div aria-live="polite" className="space-y-2" data-testid="calibrated">
          <p className="font-semibold">{told.sentence}</p>
          {told.before && told.after && (
            <p>{words.narrowed(secondsText(told.before.at_s), band(told.before), band(told.after))}</p>
          )}
          <p className="flex flex-wrap gap-2">
            {told.rig && <Button onClick={() => told.rig && onChange(told.rig)}>{words.keepTimed}</Button>}
            {what === "line" && same && <Button onClick={store}>{words.storeLine}</Button>}
            {put.isSuccess && <span role="status">{words.stored}</span>}
          </p>
        </div>
      )}
    </div>
  );
}

function Check({ rig }: { rig: RigDoc }) {
  const { say } = useReader();
  const units = useUnits();
  const ask = useCheck();
  const what = rig.float ? "cocked" : "bottom";
  const [seen, setSeen] = useState(40);
  const problems = ask.error instanceof ApiError ? ask.error.problems : [];
  return (
    <div className="space-y-2 border-t border-rule pt-2">
      <h4 className="font-bold">{words.check}</h4>
      <p className="text-soft">{say(words.checkAbout)}</p>
      <div className="flex flex-wrap items-end gap-3">
        <Amount
          label={`${say(words.checks[rig.float ? 1 : 0]?.label ?? "")}: ${words.seenAfter}`}
          unit={units.seconds}
          value={seen}
          onChange={setSeen}
          className="w-56"
        />
        <Button disabled={ask.isPending} onClick={() => ask.mutate({ what, seen_s: seen, rig })}>
          {words.checkIt}
        </Button>
      </div>
      {problems[0] && <Fault problem={problems[0]} />}
      {ask.data && (
        <p role="status" className={`border-l-4 pl-2 ${ask.data.agrees ? "border-weed" : "border-warm"}`}>
          {say(ask.data.sentence)}
        </p>
      )}
    </div>
  );
}

export function Calibrate(props: Props) {
  return (
    <Part title={words.time1}>
      <Timing {...props} />
      <Check rig={props.rig} />
    </Part>
  );
}
