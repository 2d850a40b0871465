import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useLocation } from "wouter";
import { ApiError, api, need, type Problem, type Schemas } from "../../api/client";
import { Failed, Loading } from "../../components/states";
import { again, answered } from "../../lib/again";
import { useKit } from "../../lib/kit";
import { ReadAs, type Settings, useReader } from "../../lib/session";
import { loadForNow, saveForNow } from "../../lib/store";
import { Button, Choice, Fault, Tick } from "../../ui/controls";
import { FirstUnits, Reach } from "../Kit/Reach";
import { Problems, toFirstFault } from "./Problems";
import { words } from "./strings";
import { WaterForm } from "./WaterForm";
import { emptyWater, firstPlace, readWater, type WaterDraft } from "./waterDraft";

type LineBody = Schemas["LineBody"];
type Preset = keyof typeof words.preset;
const PRESETS = Object.keys(words.preset) as Preset[];

function lineOf(preset: Preset): LineBody {
  const line = (family: LineBody["family"], label_ips: number, tip_length_m = 0): LineBody => ({
    name: "",
    family,
    label_ips,
    weight_class: 7,
    tip_length_m,
    density_profile: "level",
  });
  switch (preset) {
    case "floating":
      return line("floating", 0);
    case "tip":
      return line("sink-tip", 2, 1.8);
    case "slow":
      return line("intermediate", 1.2);
    case "fast":
      return line("intermediate", 1.5);
    case "t3":
      return line("sinking", 3);
    case "t5":
      return line("sinking", 5);
    case "t7":
      return line("sinking", 7);
  }
}

/** Everything of the first page in one go; the UUIDs make a second press harmless. */
function useSetUp() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (all: {
      settings: Schemas["SettingsIO"];
      lines: { id: string; body: LineBody }[];
      starter: string[];
      water: { id: string; body: Schemas["WaterBody"] };
    }) => {
      const settings = await need(api.PUT("/api/settings", { body: all.settings }));
      for (const { id, body } of all.lines)
        await need(api.PUT("/api/kit/lines/{line_id}", { params: { path: { line_id: id } }, body }));
      if (all.starter.length > 0) await need(api.POST("/api/kit/starter", { body: { keys: all.starter } }));
      await need(
        api.PUT("/api/waters/{water_id}", {
          params: { path: { water_id: all.water.id } },
          body: all.water.body,
        }),
      );
      return settings;
    },
    onSuccess: async (settings) => {
      answered<Schemas["SessionOut"]>(client, ["session"], (old) => (old ? { ...old, settings } : old));
      await again(client);
    },
  });
}

export default function StartPage() {
  const kit = useKit();
  if (kit.isPending) return <Loading what={words.moment} />;
  if (kit.isLoadingError) return <Failed error={kit.error} again={() => void kit.refetch()} />;
  return <Start kit={kit.data} />;
}

/** The first page as it is being filled in; it outlives a reload. Nothing is ticked that nobody ticked. */
interface First {
  settings: Settings;
  /** Where one fishes from; null until it is said. */
  from: "bank" | "boat" | null;
  ticked: Partial<Record<Preset, boolean>>;
  starter: boolean;
  water: WaterDraft;
  ids: { water: string; lines: Record<string, string> };
}

function emptyFirst(settings: Settings): First {
  const lines = Object.fromEntries(Object.keys(words.preset).map((key) => [key, crypto.randomUUID()]));
  return {
    settings,
    from: null,
    ticked: {},
    starter: false,
    water: emptyWater(),
    ids: { water: crypto.randomUUID(), lines },
  };
}

function useFirst() {
  const { name, settings } = useReader();
  const key = `start:${name}`;
  const [first, setFirst] = useState<First>(
    () => loadForNow<First | null>(key, null) ?? emptyFirst(settings),
  );
  const change = (part: Partial<First>) => {
    const next = { ...first, ...part };
    setFirst(next);
    saveForNow(key, next);
  };
  return { first, change, forget: () => saveForNow(key, null) };
}

function missing(path: string, message: string): Problem {
  return { code: "empty", path, message, accepted: "", hint: "" };
}

/** What a first plan cannot do without, by the part of the page it belongs to. */
function lacking(first: First, kit: Schemas["KitOut"]): Problem[] {
  const lines = Object.values(first.ticked).some(Boolean) || kit.lines.length > 0;
  const flies = first.starter || kit.flies.length > 0;
  return [
    ...(first.from === null ? [missing("afloat", words.needFrom)] : []),
    ...(lines ? [] : [missing("lines", words.needLine)]),
    ...(flies ? [] : [missing("starter", words.needFlies)]),
  ];
}

function You({ first, change, problemAt }: PartProps) {
  const { settings } = first;
  const fault = problemAt("afloat");
  return (
    <section className="space-y-2">
      <h2>{words.step(1, words.reach)}</h2>
      <div className="flex flex-wrap gap-x-6 gap-y-3">
        <Choice
          label={words.fishFrom}
          required
          value={first.from ?? ""}
          options={[
            { value: "bank", label: words.bank },
            { value: "boat", label: words.boat },
          ]}
          onChange={(from) =>
            from &&
            change({
              from,
              settings: { ...settings, afloat: from === "boat" },
              water: firstPlace(first.water, from === "boat"),
            })
          }
        />
        <FirstUnits value={settings} onChange={(next) => change({ settings: next })} />
      </div>
      {fault && <Fault problem={fault} />}
      <details>
        <summary className="min-h-11 cursor-pointer py-2 font-semibold">{words.laterYou}</summary>
        <Reach short value={settings} onChange={(next) => change({ settings: next })} problemAt={problemAt} />
      </details>
    </section>
  );
}

interface PartProps {
  first: First;
  change: (part: Partial<First>) => void;
  problemAt: (path: string) => Problem | undefined;
}

function Tackle({ first, change, problemAt, patterns }: PartProps & { patterns: number }) {
  const { ticked, starter } = first;
  const [noLine, noFly] = [problemAt("lines"), problemAt("starter")];
  return (
    <>
      <section>
        <h2>{words.step(2, words.lines)}</h2>
        <p className="text-[0.92rem] text-soft">{words.linesNote}</p>
        <div className="grid grid-cols-1 gap-x-6 min-[30rem]:grid-cols-2">
          {PRESETS.map((key) => (
            <Tick
              key={key}
              label={words.preset[key]}
              checked={ticked[key] ?? false}
              onChange={(on) => change({ ticked: { ...ticked, [key]: on } })}
            />
          ))}
        </div>
        {noLine && <Fault problem={noLine} />}
      </section>
      <section>
        <h2>{words.step(3, words.flies)}</h2>
        <Tick
          label={words.starter(patterns)}
          note={words.starterNote}
          checked={starter}
          onChange={(on) => change({ starter: on })}
        />
        {noFly && <Fault problem={noFly} />}
      </section>
    </>
  );
}

function Start({ kit }: { kit: Schemas["KitOut"] }) {
  const { first, change, forget } = useFirst();
  const { settings, ticked, water, ids } = first;
  const [tried, setTried] = useState(false);
  const setUp = useSetUp();
  const [, go] = useLocation();
  const read = readWater(water, settings);
  const refused = setUp.error instanceof ApiError ? setUp.error.problems : [];
  const lacks = [...lacking(first, kit), ...read.problems];
  const problems: Problem[] = [...(tried ? lacks : []), ...refused];
  const at = (path: string) => problems.find((p) => p.path === path);
  const store = () => {
    setTried(true);
    if (lacks.length > 0) return toFirstFault();
    const chosen = PRESETS.filter((key) => ticked[key]);
    const lines = chosen.map((key) => ({ id: ids.lines[key] ?? crypto.randomUUID(), body: lineOf(key) }));
    const keys = first.starter ? kit.starter.map((fly) => fly.key) : [];
    return setUp.mutate(
      { settings, lines, starter: keys, water: { id: ids.water, body: read.body } },
      {
        onSuccess: () => {
          forget();
          go(`/plan?w=${ids.water}`);
        },
        onError: toFirstFault,
      },
    );
  };
  return (
    <ReadAs settings={settings}>
      <div className="mx-auto w-full max-w-3xl space-y-7 px-4 py-5">
        <header>
          <h1>{words.title}</h1>
          <p className="text-soft">{words.lead}</p>
        </header>
        <You first={first} change={change} problemAt={at} />
        <Tackle first={first} change={change} problemAt={at} patterns={kit.starter.length} />
        <section className="space-y-2">
          <h2>{words.step(4, words.water)}</h2>
          <WaterForm
            short
            settings={settings}
            value={water}
            onChange={(next) => change({ water: next })}
            problemAt={at}
          />
        </section>
        <Problems list={problems} />
        {setUp.isError && refused.length === 0 && <Failed error={setUp.error} again={store} />}
        <Button look="main" className="min-h-14 text-lg" onClick={store} disabled={setUp.isPending}>
          {setUp.isPending ? words.saving : words.done}
        </Button>
      </div>
    </ReadAs>
  );
}
