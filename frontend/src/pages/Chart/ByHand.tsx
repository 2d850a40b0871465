/** A depth found by hand: rod, weighted fly, marked cord, asked; each with its doubt. */
import { useState } from "react";
import { ApiError, type Problem, type Schemas } from "../../api/client";
import { Failed } from "../../components/states";
import { useReader } from "../../lib/session";
import { depthFrom, depthText, typedNumber } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Button, Choice, Fault, Field, NumberBox, Select } from "../../ui/controls";
import { words } from "./strings";
import { usePutSounding } from "./useChart";

type Method = Schemas["SoundingBody"]["method"];
const MARK = "·mark";

interface Props {
  water: Water;
  levelM: number;
  mark: [number, number] | null;
  onKept: () => void;
}

export default function ByHand({ water, levelM, mark, onKept }: Props) {
  const { settings } = useReader();
  const [depth, setDepth] = useState("");
  const [method, setMethod] = useState<Method>("rod");
  const [place, setPlace] = useState("");
  const [wrong, setWrong] = useState<Problem | null>(null);
  const put = usePutSounding(water.id);
  const where = place || (mark ? MARK : "");
  const fault = (path: string, message: string): Problem => ({
    code: "form",
    path,
    message,
    accepted: "",
    hint: "",
  });
  const problems = put.error instanceof ApiError ? put.error.problems : wrong ? [wrong] : [];
  const at = (path: string) => problems.find((p) => p.path === path);
  const rest = problems.find((p) => !["depth_m", "method", "place"].includes(p.path));
  const keep = () => {
    const value = typedNumber(depth);
    if (value === null || Number.isNaN(value)) return setWrong(fault("depth_m", words.needDepth));
    if (!where) return setWrong(fault("place", words.needPlace));
    setWrong(null);
    put.mutate(
      {
        id: crypto.randomUUID(),
        body: {
          depth_m: depthFrom(settings.depth_unit, value),
          level_m: levelM,
          method,
          taken_at: new Date().toISOString(),
          place: where === MARK ? null : where,
          longitude_deg: where === MARK ? (mark?.[0] ?? null) : null,
          latitude_deg: where === MARK ? (mark?.[1] ?? null) : null,
        },
      },
      {
        onSuccess: () => {
          setDepth("");
          onKept();
        },
      },
    );
  };
  return (
    <section aria-labelledby="by-hand" className="space-y-2">
      <h2 id="by-hand">{words.byHand}</h2>
      <Choice
        label={words.how}
        required
        value={method}
        options={words.methods}
        onChange={(m) => m && setMethod(m)}
      />
      {at("method") && <Fault problem={at("method") as Problem} />}
      <div className="flex flex-wrap items-end gap-3">
        <Field label={words.depth} problem={at("depth_m")} className="w-40">
          {(p) => (
            <NumberBox
              {...p}
              unit={settings.depth_unit}
              value={depth}
              onChange={(e) => setDepth(e.target.value)}
            />
          )}
        </Field>
        <Field label={words.where} hint={words.markHint} problem={at("place")} className="w-64">
          {(p) => (
            <Select
              {...p}
              value={where}
              onChange={(e) => setPlace(e.target.value === MARK ? "" : e.target.value)}
            >
              <option value="">–</option>
              {mark && <option value={MARK}>{words.atMark}</option>}
              {water.places.map((one) => (
                <option key={one.id} value={one.name}>
                  {one.name}
                </option>
              ))}
            </Select>
          )}
        </Field>
        <Button look="main" className="mb-6" onClick={keep} disabled={put.isPending}>
          {words.keep}
        </Button>
      </div>
      {rest && <Fault problem={rest} />}
      {put.isError && problems.length === 0 && <Failed error={put.error} again={keep} />}
      {put.isSuccess && put.data && (
        <p role="status">
          {words.kept(
            depthText(settings.depth_unit, put.data.depth_today_m),
            depthText(settings.depth_unit, put.data.doubt_m),
          )}
        </p>
      )}
    </section>
  );
}
