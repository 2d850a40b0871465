/** Kind and length of a landed fish; every part may be left out. */
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useReader } from "../../lib/session";
import { typedNumber } from "../../lib/units";
import { Button, Choice, Field, NumberBox, Select } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { words } from "./strings";

type Species = NonNullable<Schemas["EventBody"]["species"]>;

interface Props {
  onClose: () => void;
  flies: string[];
  onSave: (part: Partial<Schemas["EventBody"]>) => void;
}

export default function FishSheet({ onClose, flies, onSave }: Props) {
  const { settings, say } = useReader();
  const metric = settings.depth_unit === "m";
  const [species, setSpecies] = useState<Species>("rainbow");
  const [length, setLength] = useState("");
  const [fly, setFly] = useState("");
  const [fate, setFate] = useState<"released" | "kept" | "">("");
  const value = typedNumber(length);
  const bad = value !== null && (Number.isNaN(value) || value <= 0 || value > (metric ? 150 : 59));
  const done = () => {
    if (bad) return;
    onSave({
      species,
      length_m: value === null ? null : metric ? value / 100 : value * 0.0254,
      released: fate === "" ? null : fate === "released",
      fly: fly || (flies.length === 1 ? (flies[0] ?? "") : ""),
    });
    onClose();
  };
  const problem = bad
    ? {
        code: "range",
        path: "length",
        message: words.notANumber,
        accepted: metric ? "1 to 150 cm" : "1 to 59 in",
        hint: "",
      }
    : undefined;
  return (
    <Sheet onClose={onClose} title={words.fishTitle} about={words.fishAbout}>
      <div className="space-y-4">
        <Choice
          label={words.species}
          value={species}
          options={words.speciesOptions as { value: Species; label: string }[]}
          onChange={setSpecies}
        />
        <Field label={words.length} problem={problem} className="w-40">
          {(p) => (
            <NumberBox
              {...p}
              unit={metric ? "cm" : "in"}
              value={length}
              onChange={(e) => setLength(e.target.value)}
            />
          )}
        </Field>
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
        <Button look="main" onClick={done}>
          {words.done}
        </Button>
      </div>
    </Sheet>
  );
}
