/** One line that finds outings: a month, about so warm, a wind, words in what was noted. */
import { useEffect, useState } from "react";
import { AskedBy_q_longest } from "../../api/generated/limits";
import { MONTHS } from "../../lib/months";
import { useReader } from "../../lib/session";
import { boxText, POINTS, temperatureFrom, temperatureTo, typedNumber } from "../../lib/units";
import { Button, Field, NumberBox, Select, TextBox } from "../../ui/controls";
import { words } from "./strings";
import type { useFilter } from "./useFilter";

const REST_MS = 500;

/** What is typed goes into the address once it rests. */
function useTyped(value: string, keep: (text: string) => void) {
  const [text, setText] = useState(value);
  const [kept, setKept] = useState(value);
  if (kept !== value) {
    setKept(value);
    setText(value);
  }
  useEffect(() => {
    if (text === value) return;
    const timer = setTimeout(() => keep(text), REST_MS);
    return () => clearTimeout(timer);
  });
  return [text, setText] as const;
}

export default function Filters({ filter, set, clear, some }: ReturnType<typeof useFilter>) {
  const { settings } = useReader();
  const unit = settings.temperature_unit;
  const shown = filter.surface_c == null ? "" : boxText(temperatureTo(unit, filter.surface_c), 1);
  const [warm, setWarm] = useTyped(shown, (text) => {
    const value = typedNumber(text);
    if (value === null) set("t", "");
    else if (!Number.isNaN(value)) set("t", String(Number(temperatureFrom(unit, value).toFixed(2))));
  });
  const [q, setQ] = useTyped(filter.q ?? "", (text) => set("q", text.trim()));
  return (
    <div className="flex flex-wrap items-end gap-2" data-testid="filters">
      <Field label={words.month}>
        {(p) => (
          <Select {...p} value={String(filter.month ?? "")} onChange={(e) => set("month", e.target.value)}>
            <option value="">{words.any}</option>
            {MONTHS.map((name, n) => (
              <option key={name} value={n + 1}>
                {name}
              </option>
            ))}
          </Select>
        )}
      </Field>
      <Field label={words.aboutWarm} className="w-32">
        {(p) => (
          <NumberBox
            {...p}
            unit={`°${unit.toUpperCase()}`}
            value={warm}
            onChange={(e) => setWarm(e.target.value)}
          />
        )}
      </Field>
      <Field label={words.wind}>
        {(p) => (
          <Select {...p} value={filter.wind ?? ""} onChange={(e) => set("wind", e.target.value)}>
            <option value="">{words.any}</option>
            {POINTS.map((point) => (
              <option key={point}>{point}</option>
            ))}
          </Select>
        )}
      </Field>
      <Field label={words.inNotes} className="min-w-40 flex-1">
        {(p) => (
          <TextBox
            {...p}
            type="search"
            maxLength={AskedBy_q_longest}
            value={q}
            onChange={(e) => setQ(e.target.value)}
          />
        )}
      </Field>
      {some && (
        <Button look="quiet" onClick={clear}>
          {words.clearFilters}
        </Button>
      )}
    </div>
  );
}
