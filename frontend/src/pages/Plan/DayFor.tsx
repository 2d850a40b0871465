/** What the day is for: aim, hours, and a depth already found. */
import { useState } from "react";
import { foundM } from "../../lib/day";
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { Choice, Field, NumberBox, Select } from "../../ui/controls";
import { more } from "./moreStrings";

const HOURS = [2, 3, 4, 5, 6, 8, 10];

export default function DayFor() {
  const { settings } = useReader();
  const { day, changeDay, compareWith, problemAt } = useReading(
    "day",
    "changeDay",
    "compareWith",
    "problemAt",
  );
  const [open, setOpen] = useState(false);
  const unit = settings.depth_unit;
  const found = foundM(day);
  const typed =
    found !== null && Number.isNaN(found)
      ? {
          code: "not_a_number",
          path: "found_m",
          message: more.notANumber,
          accepted: `a number in ${unit}`,
          hint: "",
        }
      : problemAt("found_m");
  const hours = HOURS.includes(day.hours) ? HOURS : [...HOURS, day.hours].sort((a, b) => a - b);
  const aim = more.aims.find((one) => one.value === day.aim)?.label.toLowerCase() ?? "";
  return (
    <details open={open} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">
        {more.day(aim, day.hours, day.found.trim() ? `${day.found.trim()} ${unit}` : "")}
      </summary>
      <div className="mt-1 flex flex-wrap items-start gap-x-6 gap-y-3">
        <Choice
          label={more.aim}
          required
          value={day.aim}
          options={more.aims as { value: typeof day.aim; label: string }[]}
          onChange={(aim) => {
            if (!aim) return;
            if (settings.schools) compareWith({ schools: settings.schools, aim: day.aim });
            changeDay({ aim });
          }}
        />
        <Field label={more.hours} className="w-24">
          {(p) => (
            <Select {...p} value={day.hours} onChange={(e) => changeDay({ hours: Number(e.target.value) })}>
              {hours.map((h) => (
                <option key={h} value={h}>
                  {more.hoursValue(h)}
                </option>
              ))}
            </Select>
          )}
        </Field>
        <Field label={more.found} hint={more.foundHint} problem={typed} className="max-w-64">
          {(p) => (
            <NumberBox
              {...p}
              className="w-32"
              unit={unit}
              value={day.found}
              onChange={(e) => changeDay({ found: e.target.value, foundUnit: unit })}
            />
          )}
        </Field>
      </div>
    </details>
  );
}
