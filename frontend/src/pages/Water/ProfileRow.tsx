/** One row of the profile table: depth, temperature, oxygen, and what is wrong with them. */
import type { KeyboardEvent } from "react";
import type { Problem } from "../../api/client";
import type { Row } from "../../lib/draft";
import { BOX, Button, Fault } from "../../ui/controls";
import { words } from "./strings";

interface RowProps {
  row: Row;
  index: number;
  oxygen: boolean;
  path: string;
  set: (index: number, part: Partial<Row>) => void;
  keys: (event: KeyboardEvent, index: number, column: "depth" | "temperature") => void;
  remove: () => void;
  problemAt: (path: string) => Problem | undefined;
  onUnit: () => void;
}

export function ProfileRow({ row, index, oxygen, path, set, keys, remove, problemAt, onUnit }: RowProps) {
  const atDepth = problemAt(`${path}.depth_m`);
  const atTemperature = problemAt(`${path}.temperature_c`);
  const atOxygen = problemAt(`${path}.oxygen_mg_l`);
  const number = index + 1;
  const about = `row-${index}-fault`;
  const fault = atDepth ?? atTemperature ?? atOxygen;
  return (
    <>
      <tr>
        <td className="py-0.5 pr-2">
          <input
            className={BOX}
            inputMode="decimal"
            autoComplete="off"
            data-at={`${index}-depth`}
            aria-label={`${words.depth} ${number}`}
            aria-invalid={atDepth ? true : undefined}
            aria-describedby={fault ? about : undefined}
            value={row.depth}
            onChange={(e) => set(index, { depth: e.target.value })}
            onKeyDown={(e) => keys(e, index, "depth")}
          />
        </td>
        <td className="py-0.5 pr-2">
          <input
            className={BOX}
            inputMode="decimal"
            autoComplete="off"
            data-at={`${index}-temperature`}
            aria-label={`${words.temperature} ${number}`}
            aria-invalid={atTemperature ? true : undefined}
            aria-describedby={fault ? about : undefined}
            value={row.temperature}
            onChange={(e) => set(index, { temperature: e.target.value })}
            onKeyDown={(e) => keys(e, index, "temperature")}
          />
        </td>
        {oxygen && (
          <td className="py-0.5 pr-2">
            <input
              className={BOX}
              inputMode="decimal"
              aria-label={`${words.oxygen} ${number}`}
              aria-invalid={atOxygen ? true : undefined}
              value={row.oxygen}
              onChange={(e) => set(index, { oxygen: e.target.value })}
            />
          </td>
        )}
        <td>
          <Button
            look="quiet"
            className="px-2 text-xl !no-underline"
            aria-label={words.remove(number)}
            onClick={remove}
          >
            ×
          </Button>
        </td>
      </tr>
      {fault && (
        <tr>
          <td colSpan={4} className="pb-2">
            <Fault
              id={about}
              problem={fault}
              action={
                fault.hint.includes("°F") ? (
                  <Button look="plain" className="mt-1 block" onClick={onUnit}>
                    {words.readAsF}
                  </Button>
                ) : undefined
              }
            />
          </td>
        </tr>
      )}
    </>
  );
}
