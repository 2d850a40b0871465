/** What a GeoJSON file tells, part by part, and which parts to take. */
import { useState } from "react";
import { ApiError } from "../../api/client";
import { Failed } from "../../components/states";
import { useReader } from "../../lib/session";
import { areaText, distanceText } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Button, Fault, Tick } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { words } from "./strings";
import { type MapFile, useTakeMap } from "./useChart";

export default function Import({ water, map, onClose }: { water: Water; map: MapFile; onClose: () => void }) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const mine = map.places.filter((p) => water.places.some((own) => own.name === p.name));
  const strangers = map.places.filter((p) => !mine.includes(p));
  const [ids] = useState(() => map.soundings.map(() => crypto.randomUUID()));
  const [wanted, setWanted] = useState({
    outline: map.rings.length > 0,
    soundings: map.soundings.length > 0,
    places: mine.length > 0,
  });
  const take = useTakeMap(water);
  const problems = take.error instanceof ApiError ? take.error.problems : [];
  return (
    <Sheet onClose={onClose} title={words.importTitle} about={map.notes.join(" ") || undefined}>
      {map.rings.length > 0 && (
        <Tick
          label={words.takeOutline(areaText(unit, map.area_m2 ?? 0), distanceText(unit, map.shore_m ?? 0))}
          checked={wanted.outline}
          onChange={(outline) => setWanted({ ...wanted, outline })}
        />
      )}
      {map.soundings.length > 0 && (
        <Tick
          label={words.takeSoundings(map.soundings.length)}
          checked={wanted.soundings}
          onChange={(soundings) => setWanted({ ...wanted, soundings })}
        />
      )}
      {mine.length > 0 && (
        <Tick
          label={words.takePlaces(mine.map((p) => p.name).join(", "))}
          checked={wanted.places}
          onChange={(places) => setWanted({ ...wanted, places })}
        />
      )}
      {strangers.length > 0 && (
        <p className="text-soft">{words.strangers(strangers.map((p) => p.name).join(", "))}</p>
      )}
      {problems.map((p) => (
        <Fault key={`${p.path}${p.code}`} problem={p} />
      ))}
      {take.isError && problems.length === 0 && <Failed error={take.error} />}
      <Button
        look="main"
        className="mt-3"
        disabled={take.isPending}
        onClick={() => take.mutate({ map, ids, wanted }, { onSuccess: onClose })}
      >
        {words.take}
      </Button>
    </Sheet>
  );
}
