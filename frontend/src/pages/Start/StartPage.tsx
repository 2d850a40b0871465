import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { ApiError, api, need, type Problem, type Schemas } from "../../api/client";
import { Failed, Loading } from "../../components/states";
import { again, answered } from "../../lib/again";
import { useKit } from "../../lib/kit";
import { useReader } from "../../lib/session";
import { Button, Fault, Tick } from "../../ui/controls";
import { Reach } from "../Kit/Reach";
import { words } from "./strings";
import { WaterForm } from "./WaterForm";
import { emptyWater, readWater } from "./waterDraft";

type LineBody = Schemas["LineBody"];
type Preset = keyof typeof words.preset;

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
  if (kit.isError) return <Failed error={kit.error} again={() => void kit.refetch()} />;
  return <Start kit={kit.data} />;
}

function Start({ kit }: { kit: Schemas["KitOut"] }) {
  const reader = useReader();
  const [settings, setSettings] = useState(reader.settings);
  const [ticked, setTicked] = useState<Record<Preset, boolean>>({
    floating: true,
    tip: false,
    slow: true,
    fast: false,
    t3: true,
    t5: false,
    t7: false,
  });
  const [starter, setStarter] = useState(true);
  const [water, setWater] = useState(emptyWater);
  const [ids] = useState(() => ({
    water: crypto.randomUUID(),
    lines: Object.fromEntries(Object.keys(words.preset).map((key) => [key, crypto.randomUUID()])),
  }));
  const [tried, setTried] = useState(false);
  const setUp = useSetUp();
  const go = useNavigate();
  const read = readWater(water, settings);
  const refused = setUp.error instanceof ApiError ? setUp.error.problems : [];
  const chosen = (Object.keys(words.preset) as Preset[]).filter((key) => ticked[key]);
  const noLine = chosen.length === 0 && kit.lines.length === 0;
  const problems: Problem[] = [...(tried ? read.problems : []), ...refused];
  const at = (path: string) => problems.find((p) => p.path === path);
  const store = () => {
    setTried(true);
    if (read.problems.length > 0 || noLine) return;
    const lines = chosen.map((key) => ({ id: ids.lines[key] ?? crypto.randomUUID(), body: lineOf(key) }));
    const keys = starter ? kit.starter.map((fly) => fly.key) : [];
    setUp.mutate(
      { settings, lines, starter: keys, water: { id: ids.water, body: read.body } },
      { onSuccess: () => go(`/plan?w=${ids.water}`) },
    );
  };
  return (
    <div className="mx-auto w-full max-w-3xl space-y-7 px-4 py-5">
      <header>
        <h1>{words.title}</h1>
        <p className="text-soft">{words.lead}</p>
      </header>
      <section className="space-y-2">
        <h2>{words.step(1, words.reach)}</h2>
        <Reach short value={settings} onChange={setSettings} problemAt={at} />
      </section>
      <section>
        <h2>{words.step(2, words.lines)}</h2>
        <p className="text-[0.92rem] text-soft">{words.linesNote}</p>
        <div className="grid grid-cols-1 gap-x-6 min-[30rem]:grid-cols-2">
          {(Object.keys(words.preset) as Preset[]).map((key) => (
            <Tick
              key={key}
              label={words.preset[key]}
              checked={ticked[key]}
              onChange={(on) => setTicked({ ...ticked, [key]: on })}
            />
          ))}
        </div>
        {tried && noLine && (
          <Fault
            problem={{ code: "empty", path: "lines", message: words.needLine, accepted: "", hint: "" }}
          />
        )}
      </section>
      <section>
        <h2>{words.step(3, words.flies)}</h2>
        <Tick
          label={words.starter(kit.starter.length)}
          note={words.starterNote}
          checked={starter}
          onChange={setStarter}
        />
      </section>
      <section className="space-y-2">
        <h2>{words.step(4, words.water)}</h2>
        <WaterForm value={water} onChange={setWater} problemAt={at} />
      </section>
      {problems.length > 0 && (
        <Fault problem={{ code: "form", path: "", message: words.problem, accepted: "", hint: "" }} />
      )}
      {setUp.isError && refused.length === 0 && <Failed error={setUp.error} again={store} />}
      <Button look="main" className="min-h-14 text-lg" onClick={store} disabled={setUp.isPending}>
        {setUp.isPending ? words.saving : words.done}
      </Button>
    </div>
  );
}
