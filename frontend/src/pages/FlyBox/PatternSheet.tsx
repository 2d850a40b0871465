/** A pattern, new or edited: what it stands for, its build, its recipe as lines of text. */
import { useState } from "react";
import { ApiError } from "../../api/client";
import { FlyBody_name_longest } from "../../api/generated/limits";
import { Failed } from "../../components/states";
import { useCatalogue } from "../../lib/catalogue";
import { flyBody, usePutFly } from "../../lib/kit";
import { useReader } from "../../lib/session";
import { Button, Choice, Fault, Field, NumberBox, Select, TextBox, Tick } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { draftOfPattern, emptyPattern, type PatternDraft, readPattern } from "./patternDraft";
import { words } from "./strings";
import type { Fly } from "./useBox";

const f = words.form;

interface PartProps {
  draft: PatternDraft;
  set: (part: Partial<PatternDraft>) => void;
}

const options = (names: Record<string, string>) =>
  Object.entries(names).map(([value, label]) => ({ value, label }));

function BuildPart({ draft, set }: PartProps) {
  return (
    <div className="space-y-2">
      <Choice
        label={f.built}
        required
        value={draft.built ? "own" : "usual"}
        options={[
          { value: "own", label: f.withBuild },
          { value: "usual", label: f.noBuild },
        ]}
        onChange={(v) => set({ built: v === "own" })}
      />
      {draft.built ? (
        <div className="grid grid-cols-2 gap-2">
          <Field label={f.wire}>
            {(p) => (
              <Select
                {...p}
                value={draft.wire}
                onChange={(e) => set({ wire: e.target.value as PatternDraft["wire"] })}
              >
                {options(f.wires).map((o) => (
                  <option key={o.value} value={o.value}>
                    {o.label}
                  </option>
                ))}
              </Select>
            )}
          </Field>
          <Field label={f.bulk}>
            {(p) => (
              <Select
                {...p}
                value={draft.bulk}
                onChange={(e) => set({ bulk: e.target.value as PatternDraft["bulk"] })}
              >
                {options(f.bulks).map((o) => (
                  <option key={o.value} value={o.value}>
                    {o.label}
                  </option>
                ))}
              </Select>
            )}
          </Field>
          <Field label={f.bead}>
            {(p) => (
              <Select {...p} value={draft.bead} onChange={(e) => set({ bead: e.target.value })}>
                {options(f.beads).map((o) => (
                  <option key={o.value} value={o.value}>
                    {o.label}
                  </option>
                ))}
              </Select>
            )}
          </Field>
          <Field label={f.beadSize}>
            {(p) => (
              <NumberBox
                {...p}
                unit="mm"
                value={draft.beadMm}
                onChange={(e) => set({ beadMm: e.target.value })}
              />
            )}
          </Field>
          <Field label={f.turns}>
            {(p) => <NumberBox {...p} value={draft.turns} onChange={(e) => set({ turns: e.target.value })} />}
          </Field>
          <Field label={f.foam}>
            {(p) => (
              <NumberBox
                {...p}
                unit="mm³"
                value={draft.foam}
                onChange={(e) => set({ foam: e.target.value })}
              />
            )}
          </Field>
        </div>
      ) : (
        <Choice
          label={f.weight}
          required
          value={draft.weight}
          options={options(f.weights)}
          onChange={(v) => v && set({ weight: v as PatternDraft["weight"] })}
        />
      )}
    </div>
  );
}

function TextArea({
  label,
  hint,
  rows,
  value,
  onChange,
}: {
  label: string;
  hint?: string;
  rows: number;
  value: string;
  onChange: (v: string) => void;
}) {
  return (
    <Field label={label} hint={hint}>
      {(p) => (
        <textarea
          {...p}
          rows={rows}
          className="w-full rounded-md border-2 border-edge bg-raised px-2.5 py-1"
          value={value}
          onChange={(e) => onChange(e.target.value)}
        />
      )}
    </Field>
  );
}

function PreyPart({ draft, set }: PartProps) {
  const { say } = useReader();
  const catalogue = useCatalogue().data;
  return (
    <fieldset>
      <legend className="font-semibold">{words.prey}</legend>
      <div className="grid grid-cols-2 gap-x-2">
        {catalogue?.prey.map((prey) => (
          <Tick
            key={prey.key}
            label={say(prey.name)}
            checked={draft.prey.includes(prey.key)}
            onChange={(on) =>
              set({ prey: on ? [...draft.prey, prey.key] : draft.prey.filter((k) => k !== prey.key) })
            }
          />
        ))}
      </div>
    </fieldset>
  );
}

export default function PatternSheet({ fly, onClose }: { fly: Fly | null; onClose: () => void }) {
  const before = fly ? flyBody(fly) : null;
  const [id] = useState(() => fly?.id ?? crypto.randomUUID());
  const [draft, setDraft] = useState(() => (before ? draftOfPattern(before) : emptyPattern()));
  const [wrong, setWrong] = useState<string | null>(null);
  const families = useCatalogue().data?.families ?? {};
  const put = usePutFly();
  const set = (part: Partial<PatternDraft>) => setDraft({ ...draft, ...part });
  const problems = put.error instanceof ApiError ? put.error.problems : [];
  const keep = () => {
    const read = readPattern(draft, before);
    setWrong(read.wrong);
    if (read.body) put.mutate({ id, body: read.body }, { onSuccess: onClose });
  };
  return (
    <Sheet onClose={onClose} title={fly ? f.titleEdit : f.titleNew}>
      <div className="space-y-3">
        <Field label={f.name} problem={problems.find((p) => p.path === "name")}>
          {(p) => (
            <TextBox
              {...p}
              maxLength={FlyBody_name_longest}
              value={draft.name}
              onChange={(e) => set({ name: e.target.value })}
            />
          )}
        </Field>
        <div className="grid grid-cols-2 gap-2">
          <Field label={f.family}>
            {(p) => (
              <Select {...p} value={draft.family} onChange={(e) => set({ family: e.target.value })}>
                <option value="">{f.noFamily}</option>
                {Object.keys(families).map((key) => (
                  <option key={key} value={key}>
                    {key.replace("-", " ")}
                  </option>
                ))}
              </Select>
            )}
          </Field>
          <Field label={f.hooks} hint={f.hooksHint}>
            {(p) => <TextBox {...p} value={draft.hooks} onChange={(e) => set({ hooks: e.target.value })} />}
          </Field>
        </div>
        <Choice
          label={words.tone}
          required
          value={draft.tone}
          options={options(words.tones)}
          onChange={(v) => v && set({ tone: v as PatternDraft["tone"] })}
        />
        <Tick label={f.surface} checked={draft.surface} onChange={(surface) => set({ surface })} />
        <PreyPart draft={draft} set={set} />
        <BuildPart draft={draft} set={set} />
        <TextArea
          label={f.materials}
          hint={f.materialsHint}
          rows={5}
          value={draft.materials}
          onChange={(materials) => set({ materials })}
        />
        <TextArea label={f.steps} rows={6} value={draft.steps} onChange={(steps) => set({ steps })} />
        {wrong && <Fault problem={{ code: "form", path: "", message: wrong, accepted: "", hint: "" }} />}
        {problems
          .filter((p) => p.path !== "name")
          .map((p) => (
            <Fault key={`${p.path}${p.code}`} problem={p} />
          ))}
        {put.isError && problems.length === 0 && <Failed error={put.error} again={keep} />}
        <Button look="main" onClick={keep} disabled={put.isPending}>
          {f.save}
        </Button>
      </div>
    </Sheet>
  );
}
