import { lazy, Suspense, useState } from "react";
import { Link } from "wouter";
import { InHand } from "../../components/InHand";
import { JumpLinks } from "../../components/JumpLinks";
import { Failed, Loading } from "../../components/states";
import { words as shellWords } from "../../components/strings";
import { TwoPane } from "../../components/TwoPane";
import { WaterTabs } from "../../components/WaterTabs";
import { WithWater } from "../../components/WithWater";
import { useRing } from "../../lib/cord";
import { EMPTY_ROW } from "../../lib/draft";
import { useMeaning } from "../../lib/meaning";
import { useBoxes, useHandNow, useReading } from "../../lib/reading";
import { boxTime } from "../../lib/time";
import { boxText, depthTo, typedNumber } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Button, Field, NumberBox, Select, TextBox } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { ProfileTable } from "./ProfileTable";
import { words } from "./strings";
import { Weather } from "./Weather";

// The picture comes a moment after the words.
const MeaningColumn = lazy(() => import("../../components/MeaningColumn"));

// Below the first screen: fetched beside what stands on it.
const HourStrip = lazy(() => import("./HourStrip"));
const Meaning = lazy(() => import("./Meaning"));
const Seen = lazy(() => import("./Seen"));
const Guided = lazy(() => import("./Guided"));

export default function WaterPage() {
  return <WithWater>{(water) => <WaterWork water={water} />}</WithWater>;
}

function PlaceAndTime({ water }: { water: Water }) {
  const { draft, change } = useBoxes("place", "depthUnit", "waterDepth", "when");
  const { problemAt } = useReading("problemAt");
  const zone = water.time_zone ?? "UTC";
  return (
    <div className="grid gap-x-4 gap-y-3 min-[34rem]:grid-cols-3">
      <Field label={words.place} problem={problemAt("place")}>
        {(p) => (
          <Select
            {...p}
            value={draft.place}
            onChange={(e) => change({ place: e.target.value, waterDepth: "" })}
          >
            <option value="">{words.bestPlace}</option>
            {water.places.map((place) => (
              <option key={place.id} value={place.name}>
                {place.name}
              </option>
            ))}
          </Select>
        )}
      </Field>
      <Field label={words.waterDepth} problem={problemAt("reading.water_depth_m")}>
        {(p) => (
          <NumberBox
            {...p}
            unit={draft.depthUnit}
            value={draft.waterDepth}
            onChange={(e) => change({ waterDepth: e.target.value })}
          />
        )}
      </Field>
      <Field label={words.when} problem={problemAt("when")}>
        {(p) =>
          draft.when === "" ? (
            <Button
              className="block w-full !font-normal"
              id={p.id}
              onClick={() => change({ when: boxTime(new Date(), zone) })}
            >
              {words.now} · {words.later.toLowerCase()}…
            </Button>
          ) : (
            <span className="flex flex-wrap gap-1">
              <TextBox
                {...p}
                type="datetime-local"
                value={draft.when}
                onChange={(e) => change({ when: e.target.value })}
              />
              <Button look="quiet" className="px-2" onClick={() => change({ when: "" })}>
                {words.now}
              </Button>
            </span>
          )
        }
      </Field>
    </div>
  );
}

/** To the plan for the reading in hand, the older one too. */
function ToPlan({ water }: { water: Water }) {
  const { older } = useReading("older");
  return (
    <Link
      to={`/plan?w=${water.id}${older ? `&r=${older.id}` : ""}`}
      className="inline-flex min-h-11 items-center rounded-md border-2 border-water bg-water px-4 font-semibold text-on-water no-underline"
    >
      {words.toPlan}
    </Link>
  );
}

function SavedNote() {
  const { saved } = useReading("saved");
  return (
    <span role="status" className="font-semibold">
      {words.saved[saved]}.
    </span>
  );
}

function WaterWork({ water }: { water: Water }) {
  const now = useHandNow();
  const { fetching, older, mending, startFromLast } = useReading(
    "fetching",
    "older",
    "mending",
    "startFromLast",
  );
  const meaning = useMeaning(water.id);
  const [guided, setGuided] = useState(false);
  const { ring, setRing } = useRing();
  const done = useDone();
  const tie = () => {
    const { draft, change } = now();
    const depth = boxText(depthTo(draft.depthUnit, ring), 2);
    const filled = draft.rows.filter((r) => r.depth.trim() || r.temperature.trim());
    const value = (text: string) => typedNumber(text) ?? 0;
    const rows = [...filled, { ...EMPTY_ROW, depth }].sort((a, b) => value(a.depth) - value(b.depth));
    const at = rows.findIndex((r) => r.depth === depth && r.temperature === "");
    change({ rows, profileAt: "" });
    requestAnimationFrame(() =>
      document.querySelector<HTMLInputElement>(`[data-at="${at}-temperature"]`)?.focus(),
    );
  };
  const startOver = (start: () => void, text = words.freshDone) => {
    const { draft: before, change } = now();
    start();
    done({ text, undo: () => change(before) });
  };
  const guide = () => {
    const { draft, change } = now();
    // Temperatures carried over would look like read ones to the guide.
    if (draft.profileAt !== "")
      startOver(() => change({ rows: [{ ...EMPTY_ROW }], profileAt: "" }), words.readAgainDone);
    setGuided(true);
  };
  if (fetching) return <Loading what={words.fetching} />;
  return (
    <TwoPane
      column={
        <div className="relative h-full">
          <Suspense>
            <MeaningColumn
              water={water}
              meaning={meaning.data}
              page="water"
              first={["temperature", "oxygen", "open", "light"]}
              ring={ring}
              onRing={setRing}
            />
          </Suspense>
          <Button className="absolute top-1 right-2 !min-h-9 !py-0 text-[0.9rem]" onClick={tie}>
            {words.tie}
          </Button>
        </div>
      }
    >
      <div className="space-y-7">
        <div>
          <WaterTabs />
          <InHand water={water} />
          <h1>{words.title}</h1>
          <p className="text-soft">
            {words.lead} <SavedNote />
          </p>
          <p className="mt-2 flex flex-wrap items-center gap-2">
            <ToPlan water={water} />
            {!older && (
              <Button onClick={() => startOver(now().startNew, words.newReadingDone)}>
                {words.newReading}
              </Button>
            )}
          </p>
        </div>
        <JumpLinks label={shellWords.onPage} parts={words.parts} />
        <PlaceAndTime water={water} />
        <ProfileTable water={water} onGuide={guide} />
        <Weather />
        <Suspense fallback={<Loading what={words.working} />}>
          <HourStrip water={water} meaning={meaning.data} />
          <Seen />
        </Suspense>
        {meaning.error && !meaning.data && !mending ? (
          <Failed error={meaning.error} again={() => void meaning.refetch()} />
        ) : null}
        {meaning.data ? (
          <Suspense fallback={<Loading what={words.working} />}>
            <Meaning meaning={meaning.data} waterId={water.id} />
          </Suspense>
        ) : (
          meaning.isFetching && <Loading what={words.working} />
        )}
        <p className="flex flex-wrap items-center gap-2">
          <ToPlan water={water} />
          {startFromLast && !older && (
            <Button onClick={() => startOver(startFromLast)}>{words.fromLast}</Button>
          )}
          {!older && <Button onClick={() => startOver(now().startFresh)}>{words.fresh}</Button>}
          <Link to={`/waters/${water.id}`}>{words.waterRules}</Link>
        </p>
        {guided && (
          <Suspense>
            <Guided water={water} onClose={() => setGuided(false)} />
          </Suspense>
        )}
      </div>
    </TwoPane>
  );
}
