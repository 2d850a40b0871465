/** Temperatures at depths, typed quickly, pasted, or from a logger's file. */

import { useMutation } from "@tanstack/react-query";
import { type ClipboardEvent, type KeyboardEvent, useRef } from "react";
import { ApiError, api, need, type Problem, type Schemas } from "../../api/client";
import { ProfileAge } from "../../components/ProfileAge";
import { asFile } from "../../lib/asFile";
import { EMPTY_ROW, type Row, rowsOf, typed } from "../../lib/draft";
import { useBoxes, useReading } from "../../lib/reading";
import { boxTime } from "../../lib/time";
import { boxText, typedNumber } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Button, Fault, Select, Tick } from "../../ui/controls";
import { FileButton } from "../../ui/FileButton";
import { useDone } from "../../ui/UndoBar";
import { ProfileRow } from "./ProfileRow";
import { words } from "./strings";

/** The next depth an angler would read: the same step again, or one knot down. */
function nextDepth(rows: Row[], feet: boolean): string {
  const depths = rows
    .map((r) => typedNumber(r.depth))
    .filter((d): d is number => d !== null && !Number.isNaN(d));
  const last = depths.at(-1);
  if (last === undefined) return "0";
  const before = depths.at(-2);
  const step = before === undefined || last <= before ? (feet ? 5 : 1) : last - before;
  return boxText(last + step, 2);
}

const MOST_FILE_BYTES = 1_000_000;

function tooLarge(bytes: number): Problem {
  const message = `This file has ${(bytes / 1e6).toFixed(0)} MB; a profile has a few kilobytes.`;
  return {
    code: "too_large",
    path: "file",
    message,
    accepted: "up to 1 MB",
    hint: "Export one cast, not the whole memory.",
  };
}

function useProfileFile(water: Water, onRead: (found: Schemas["ProfileFileOut"]) => void) {
  return useMutation({
    mutationFn: async ({ file, asF }: { file: File; asF?: boolean }) => {
      if (file.size > MOST_FILE_BYTES) throw new ApiError(422, [tooLarge(file.size)]);
      return need(
        api.POST("/api/waters/{water_id}/profile-file", {
          params: { path: { water_id: water.id }, query: asF ? { temperature_unit: "f" } : {} },
          ...asFile(file),
        }),
      );
    },
    onSuccess: onRead,
  });
}

interface Props {
  water: Water;
  onGuide: () => void;
}

export function ProfileTable({ water, onGuide }: Props) {
  const { draft, change } = useBoxes(
    "rows",
    "depthUnit",
    "temperatureUnit",
    "windUnit",
    "profileAt",
    "sources",
    "when",
  );
  const { problemAt, rowPath } = useReading("problemAt", "rowPath");
  const done = useDone();
  const table = useRef<HTMLTableElement>(null);
  const rows = draft.rows.length > 0 ? draft.rows : [{ ...EMPTY_ROW }];
  const oxygen = rows.some((r) => r.oxygen !== "");
  const csv = useProfileFile(water, (found) => {
    const before = { rows: draft.rows, profileAt: draft.profileAt, sources: draft.sources, when: draft.when };
    change({
      rows: rowsOf(found.points, draft),
      profileAt: "",
      sources: { ...draft.sources, profile: "instrument" },
      ...(found.taken_at ? { when: boxTime(new Date(found.taken_at), water.time_zone ?? "UTC") } : {}),
    });
    done({ text: words.csvUndo, undo: () => change(before) });
  });
  const set = (index: number, part: Partial<Row>) =>
    change({
      rows: rows.map((row, i) => (i === index ? { ...row, ...part } : row)),
      profileAt: "",
      sources: typed(draft.sources, "profile"),
    });
  const readAgain = () => {
    const before = { rows: draft.rows, profileAt: draft.profileAt };
    change({ rows: [{ ...EMPTY_ROW }], profileAt: "" });
    done({ text: words.readAgainDone, undo: () => change(before) });
    focus(0, "depth");
  };
  const focus = (row: number, column: string) =>
    requestAnimationFrame(() =>
      table.current?.querySelector<HTMLInputElement>(`[data-at="${row}-${column}"]`)?.focus(),
    );
  const addRow = () => {
    change({ rows: [...rows, { ...EMPTY_ROW, depth: nextDepth(rows, draft.depthUnit === "ft") }] });
    focus(rows.length, "temperature");
  };
  const keys = (event: KeyboardEvent, index: number, column: "depth" | "temperature") => {
    if (event.key !== "Enter") return;
    event.preventDefault();
    if (column === "depth") focus(index, "temperature");
    else if (index === rows.length - 1) addRow();
    else focus(index + 1, "temperature");
  };
  const paste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData("text");
    if (!text.includes("\n")) return;
    event.preventDefault();
    csv.mutate({
      file: new File([text], "pasted.csv", { type: "text/csv" }),
      asF: draft.temperatureUnit === "f",
    });
  };
  const csvProblems = csv.error instanceof ApiError ? csv.error.problems : [];
  const offerF = csvProblems.some((p) => p.hint.includes("°F"));
  return (
    <section aria-labelledby="profile">
      <h2 id="profile">{words.profile}</h2>
      <p className="mb-2 text-[0.92rem] text-soft">{words.profileAbout}</p>
      {draft.profileAt !== "" && (
        <p className="mb-2 flex flex-wrap items-center gap-2 border-l-4 border-rule pl-2 font-semibold">
          <ProfileAge water={water} />
          <Button onClick={readAgain}>{words.readAgain}</Button>
        </p>
      )}
      <table ref={table} className="w-full max-w-md" onPaste={paste}>
        <thead>
          <tr className="text-left align-bottom">
            <th scope="col" className="w-2/5 font-semibold">
              {words.depth}{" "}
              <Select
                aria-label={`${words.depth}: unit`}
                className="!w-auto"
                value={draft.depthUnit}
                onChange={(e) => change({ depthUnit: e.target.value as "m" | "ft" })}
              >
                <option value="m">m</option>
                <option value="ft">ft</option>
              </Select>
            </th>
            <th scope="col" className="w-2/5 font-semibold">
              <span className="max-[34rem]:sr-only">{words.temperature}</span>{" "}
              <Select
                aria-label={`${words.temperature}: unit`}
                className="!w-auto"
                value={draft.temperatureUnit}
                onChange={(e) => change({ temperatureUnit: e.target.value as "c" | "f" })}
              >
                <option value="c">°C</option>
                <option value="f">°F</option>
              </Select>
            </th>
            {oxygen && (
              <th scope="col" className="font-semibold">
                {words.oxygen}
              </th>
            )}
            <th scope="col">
              <span className="sr-only">Remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, index) => (
            <ProfileRow
              key={index}
              row={row}
              index={index}
              oxygen={oxygen}
              set={set}
              keys={keys}
              remove={() => change({ rows: rows.filter((_, i) => i !== index) })}
              path={rowPath(index)}
              problemAt={problemAt}
              onUnit={() => change({ temperatureUnit: draft.temperatureUnit === "c" ? "f" : "c" })}
            />
          ))}
        </tbody>
      </table>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Button onClick={addRow}>{words.addRow}</Button>
        <Button onClick={onGuide}>{words.guide}</Button>
        <FileButton
          label={words.csv}
          accept=".csv,.txt,.json,.covjson,text/csv,text/plain,application/json"
          onFile={(file) => csv.mutate({ file })}
        />
        {!oxygen && (
          <Tick label={words.withOxygen} checked={false} onChange={() => set(0, { oxygen: " " })} />
        )}
      </div>
      {csvProblems.slice(0, 6).map((p) => (
        <Fault
          key={`${p.path}${p.code}`}
          problem={{ ...p, message: `${p.path[0]?.toUpperCase()}${p.path.slice(1)}: ${p.message}` }}
        />
      ))}
      {offerF && csv.variables && (
        <Button className="mt-1" onClick={() => csv.mutate({ file: csv.variables.file, asF: true })}>
          {words.readAsF}
        </Button>
      )}
      {csv.data && csv.isSuccess && (
        <p role="status" className="mt-1 text-soft">
          {words.csvDone(csv.data.points.length)} {csv.data.notes.join(" ")}
        </p>
      )}
    </section>
  );
}
