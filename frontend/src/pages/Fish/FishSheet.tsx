/** Kind, length and weight of a landed fish, and a photo of it; every part may be left out. */
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useReader } from "../../lib/session";
import type { Outing } from "../../offline/overlay";
import { PhotoButton } from "../../photos/PhotoButton";
import { Button, Choice, Field, Select } from "../../ui/controls";
import { MeasureField, useLengthBox, useWeightBox } from "../../ui/measures";
import { Sheet } from "../../ui/Sheet";
import { words } from "./strings";

type Species = NonNullable<Schemas["EventBody"]["species"]>;

interface Props {
  onClose: () => void;
  flies: string[];
  outing: Outing;
  event: string;
  onSave: (part: Partial<Schemas["EventBody"]>) => void;
}

export default function FishSheet({ onClose, flies, outing, event, onSave }: Props) {
  const { say } = useReader();
  const [species, setSpecies] = useState<Species>("rainbow");
  const length = useLengthBox(null);
  const weight = useWeightBox(null);
  const [fly, setFly] = useState("");
  const [fate, setFate] = useState<"released" | "kept" | "">("");
  // The photo hangs where the fish took, where that is known.
  const depth = outing.events.find((one) => one.id === event)?.depth_m ?? null;
  const bad = length.bad || weight.bad;
  const done = () => {
    if (bad) return;
    onSave({
      species,
      length_m: length.value,
      weight_kg: weight.value,
      released: fate === "" ? null : fate === "released",
      fly: fly || (flies.length === 1 ? (flies[0] ?? "") : ""),
    });
    onClose();
  };
  return (
    <Sheet onClose={onClose} title={words.fishTitle} about={words.fishAbout}>
      <div className="space-y-4">
        <Choice
          label={words.species}
          value={species}
          options={words.speciesOptions as { value: Species; label: string }[]}
          onChange={setSpecies}
        />
        <div className="flex flex-wrap gap-4">
          <MeasureField label={words.length} box={length} />
          <MeasureField label={words.weight} box={weight} />
        </div>
        {flies.length > 1 && (
          <Field label={words.which}>
            {(p) => (
              <Select {...p} value={fly} onChange={(e) => setFly(e.target.value)}>
                <option value="">?</option>
                {flies.map((name) => (
                  <option key={name} value={name}>
                    {say(name)}
                  </option>
                ))}
              </Select>
            )}
          </Field>
        )}
        <Choice
          label={words.fate}
          value={fate}
          options={words.fates as { value: "released" | "kept"; label: string }[]}
          onChange={setFate}
        />
        <div className="flex flex-wrap gap-2">
          <Button look="main" onClick={done}>
            {words.done}
          </Button>
          <PhotoButton outing={outing} shows="fish" depth={depth} />
        </div>
      </div>
    </Sheet>
  );
}
