import { useState } from "react";
import { ApiError, type Schemas } from "../../api/client";
import { LineBody_name_longest } from "../../api/generated/limits";
import { useDeleteLine, usePutLine } from "../../lib/kit";
import { useReader } from "../../lib/session";
import { depthFrom, lengthText, typedNumber } from "../../lib/units";
import { Button, Choice, Fault, Field, NumberBox, Select, TextBox } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { useDone } from "../../ui/UndoBar";
import { words } from "./strings";

type Family = Schemas["LineBody"]["family"];
type Profile = Schemas["LineBody"]["density_profile"];

function LineForm({ onClose }: { onClose: () => void }) {
  const { settings } = useReader();
  const put = usePutLine();
  const [family, setFamily] = useState<Family>("intermediate");
  const [rate, setRate] = useState("1.2");
  const [tip, setTip] = useState(settings.depth_unit === "m" ? "1.8" : "6");
  const [weight, setWeight] = useState("7");
  const [profile, setProfile] = useState<Profile>("level");
  const [name, setName] = useState("");
  const problems = put.error instanceof ApiError ? put.error.problems : [];
  const number = (text: string) => typedNumber(text) ?? 0;
  const add = () =>
    put.mutate(
      {
        id: crypto.randomUUID(),
        body: {
          name,
          family,
          label_ips: family === "floating" ? 0 : number(rate),
          weight_class: Number(weight),
          tip_length_m: family === "sink-tip" ? depthFrom(settings.depth_unit, number(tip)) : 0,
          density_profile: profile,
        },
      },
      { onSuccess: onClose },
    );
  return (
    <div className="space-y-4">
      <Choice
        label={words.family}
        required
        value={family}
        options={words.families as { value: Family; label: string }[]}
        onChange={(v) => v && setFamily(v)}
      />
      <div className="flex flex-wrap gap-4">
        {family !== "floating" && (
          <Field
            label={words.rate}
            hint={words.rateHint}
            problem={problems.find((p) => p.path === "label_ips")}
            className="w-44"
          >
            {(p) => <NumberBox {...p} unit="in/s" value={rate} onChange={(e) => setRate(e.target.value)} />}
          </Field>
        )}
        {family === "sink-tip" && (
          <Field label={words.tip} problem={problems.find((p) => p.path === "tip_length_m")} className="w-32">
            {(p) => (
              <NumberBox
                {...p}
                unit={settings.depth_unit}
                value={tip}
                onChange={(e) => setTip(e.target.value)}
              />
            )}
          </Field>
        )}
        <Field label={words.weight} className="w-32">
          {(p) => (
            <Select {...p} value={weight} onChange={(e) => setWeight(e.target.value)}>
              {[3, 4, 5, 6, 7, 8, 9].map((n) => (
                <option key={n} value={n}>
                  {n}
                </option>
              ))}
            </Select>
          )}
        </Field>
      </div>
      {(family === "sinking" || family === "intermediate") && (
        <Choice
          label={words.profile}
          required
          value={profile}
          options={words.profiles as { value: Profile; label: string }[]}
          onChange={(v) => v && setProfile(v)}
        />
      )}
      <Field label={words.lineName}>
        {(p) => (
          <TextBox
            {...p}
            maxLength={LineBody_name_longest}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
        )}
      </Field>
      {problems
        .filter((p) => p.path === "")
        .map((p) => (
          <Fault key={p.message} problem={p} />
        ))}
      <Button look="main" onClick={add} disabled={put.isPending}>
        {words.add}
      </Button>
    </div>
  );
}

export function Lines({ lines }: { lines: Schemas["LineOut"][] }) {
  const { say, settings } = useReader();
  const [adding, setAdding] = useState(false);
  const put = usePutLine();
  const remove = useDeleteLine();
  const done = useDone();
  const drop = (line: Schemas["LineOut"]) => {
    const { id, revision: _revision, title: _title, label_doubt: _doubt, ...body } = line;
    remove.mutate(id, {
      onSuccess: () => done({ text: words.removed, undo: () => put.mutate({ id, body }) }),
    });
  };
  return (
    <section>
      <h2>{words.lines}</h2>
      {lines.length === 0 && <p className="text-soft">{words.noLines}</p>}
      <ul className="corded my-2">
        {lines.map((line) => (
          <li key={line.id} className="knot flex items-center gap-3 border-b border-rule">
            <span className="flex-1">
              <b>{say(line.title)}</b>{" "}
              <span className="text-soft">
                #{line.weight_class}
                {line.tip_length_m > 0 && ` · tip ${lengthText(settings.depth_unit, line.tip_length_m)}`}
                {line.measured_m_s !== null && ` · ${words.timed}`}
              </span>
              {line.label_doubt && (
                <span className="block text-[0.92rem] text-warm">{say(line.label_doubt)}</span>
              )}
            </span>
            <Button
              look="quiet"
              className="!px-3 text-xl !no-underline"
              aria-label={words.remove(line.title)}
              onClick={() => drop(line)}
            >
              ×
            </Button>
          </li>
        ))}
      </ul>
      <Button onClick={() => setAdding(true)}>{words.addLine}</Button>
      {adding && (
        <Sheet onClose={() => setAdding(false)} title={words.addLine}>
          <LineForm onClose={() => setAdding(false)} />
        </Sheet>
      )}
    </section>
  );
}
