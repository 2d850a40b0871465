/** How the day turned, in one word: it becomes a reading of its own, and the advice is made anew. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { ApiError, api, need, OfflineError, type Schemas } from "../../api/client";
import { PreyOptions } from "../../components/PreyOptions";
import { Failed } from "../../components/states";
import { again } from "../../lib/again";
import { nowIso } from "../../lib/clock";
import { useReader } from "../../lib/session";
import { depthFrom } from "../../lib/units";
import type { Outing } from "../../offline/overlay";
import { useOutbox } from "../../offline/useOuting";
import { Button, Choice, Field, NumberBox, Select } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { useDone } from "../../ui/UndoBar";
import { words } from "./turnStrings";

type Turn = Schemas["TurnBody"]["turn"];
type Word = Exclude<Turn, "sample">;
const TURNS: Word[] = [
  ...(["sun-out", "cloud-over", "wind-up", "wind-dropped", "thunder", "thunder-over"] as const),
  ...(["coloured", "rise", "quiet"] as const),
];

/** What cannot be sent now is kept, and sent with the rest. */
async function orLater<T>(sent: Promise<T>, keep: () => Promise<void>): Promise<T | undefined> {
  try {
    return await sent;
  } catch (error) {
    if (!(error instanceof OfflineError)) throw error;
    await keep();
    return undefined;
  }
}

const MINUTES = [10, 20, 30, 60];
const TAKES = [0, 1, 2, 3, 5];

// A float hangs still; what is brought back is taken at the pace most lines are fished at.
const WAYS = [
  { value: "static", label: words.seenStill },
  { value: "hand-twist", label: words.seenMoving },
];

interface Seen {
  outing: string;
  place: string;
  places: string[];
  onDone: () => void;
}

/** So many fish in so many minutes, where, and how and how deep where it could be seen. */
function Neighbour({ outing, place, places, onDone }: Seen) {
  const { say, settings } = useReader();
  const client = useQueryClient();
  const { box } = useOutbox();
  const done = useDone();
  const [takes, setTakes] = useState(1);
  const [minutes, setMinutes] = useState(30);
  const [depth, setDepth] = useState("");
  const [where, setWhere] = useState(place);
  const [way, setWay] = useState("");
  const deep = depth.trim() === "" ? null : Number(depth.replace(",", "."));
  const path = { outing_id: outing, seen_id: useState(() => crypto.randomUUID())[0] };
  const anew = () => again(client, ["/api/outings/{outing_id}/next", { outing_id: outing }]);
  const takeBack = useMutation({
    mutationFn: () => need(api.DELETE("/api/outings/{outing_id}/seen/{seen_id}", { params: { path } })),
    onSuccess: anew,
  });
  const note = useMutation({
    mutationFn: () => {
      const depth_m = deep === null ? null : depthFrom(settings.depth_unit, deep);
      const told = { seen_at: nowIso(), minutes, takes, place: where, depth_m, pace: way || null };
      const body = told as Schemas["SeenBody"];
      return orLater(
        need(api.PUT("/api/outings/{outing_id}/seen/{seen_id}", { params: { path }, body })),
        () => box.add(words.neighbour, { kind: "seen", outing, id: path.seen_id, body }),
      );
    },
    onSuccess: () => {
      void anew();
      done({ text: words.seenNoted, undo: () => takeBack.mutate() });
      onDone();
    },
  });
  const problems = note.error instanceof ApiError ? note.error.problems : [];
  return (
    <div className="space-y-3">
      <Choice
        required
        label={words.seenTakes}
        value={String(takes)}
        options={TAKES.map((n) => ({ value: String(n), label: String(n) }))}
        onChange={(value) => setTakes(Number(value))}
      />
      <Choice
        required
        label={words.seenMinutes}
        value={String(minutes)}
        options={MINUTES.map((n) => ({ value: String(n), label: String(n) }))}
        onChange={(value) => setMinutes(Number(value))}
      />
      {places.length > 1 && (
        <Field label={words.seenWhere}>
          {(p) => (
            <Select {...p} value={where} onChange={(e) => setWhere(e.target.value)}>
              {places.map((one) => (
                <option key={one}>{one}</option>
              ))}
              <option value="">{words.seenNowhere}</option>
            </Select>
          )}
        </Field>
      )}
      <Choice
        label={words.seenHow}
        value={way}
        options={WAYS.map((one) => ({ ...one, label: say(one.label) }))}
        onChange={setWay}
      />
      <Field
        label={words.seenDepth}
        hint={say(words.seenDepthHint)}
        problem={problems.find((p) => p.path === "depth_m")}
        className="w-40"
      >
        {(p) => (
          <NumberBox
            {...p}
            unit={settings.depth_unit}
            value={depth}
            onChange={(e) => setDepth(e.target.value)}
          />
        )}
      </Field>
      {note.isError && problems.length === 0 && <Failed error={note.error} />}
      <Button
        look="main"
        className="min-h-14 w-full"
        disabled={note.isPending || Number.isNaN(deep)}
        onClick={() => note.mutate()}
      >
        {words.seenSave}
      </Button>
    </div>
  );
}

const COUNTS = [1, 5, 20, 100];

/** What a fish had in its throat: the kind, and about how many. */
function Throat({ busy, onNote }: { busy: boolean; onNote: (sample: Schemas["ThroatSample"]) => void }) {
  const [prey, setPrey] = useState("");
  const [count, setCount] = useState(5);
  type Item = Schemas["ThroatSample"]["items"][number];
  return (
    <div className="space-y-3">
      <Field label={words.throatKind}>
        {(p) => (
          <Select {...p} value={prey} onChange={(e) => setPrey(e.target.value)}>
            <PreyOptions />
          </Select>
        )}
      </Field>
      <Choice
        required
        label={words.throatCount}
        value={String(count)}
        options={COUNTS.map((n) => ({ value: String(n), label: String(n) }))}
        onChange={(value) => setCount(Number(value))}
      />
      <Button
        look="main"
        className="min-h-14 w-full"
        disabled={busy || prey === ""}
        onClick={() => onNote({ items: [{ prey: prey as Item["prey"], count, state: "live" }] })}
      >
        {words.seenSave}
      </Button>
    </div>
  );
}

const ABOUT = { turn: words.turnAbout, seen: words.seenAbout, throat: words.throatAbout } as const;

interface Props {
  outing: Outing;
  /** Where one fishes: a neighbour in sight is taken to fish there too. */
  place: string;
  onClose: () => void;
}

export default function TurnSheet({ outing: { id: outing, plan }, place, onClose }: Props) {
  const planned = plan?.belief.places.map((one) => one.place) ?? [];
  const places = place === "" || planned.includes(place) ? planned : [place, ...planned];
  const [asked, setAsked] = useState<keyof typeof ABOUT>("turn");
  const { say } = useReader();
  const client = useQueryClient();
  const { box } = useOutbox();
  const note = useMutation({
    mutationFn: ({ turn, sample }: { turn: Turn; sample?: Schemas["ThroatSample"] }) => {
      const id = crypto.randomUUID();
      const told = { turn, sample, at: nowIso() };
      const params = { path: { outing_id: outing } };
      const now = need(
        api.POST("/api/outings/{outing_id}/turn", { params, body: { ...told, reading_id: id } }),
      );
      return orLater<unknown>(now, () => box.add(words.turnTitle, { kind: "turn", outing, id, body: told }));
    },
    onSuccess: () => {
      const { path } = { path: { outing_id: outing } };
      void again(
        client,
        ["/api/outings/{outing_id}/next", path],
        ["/api/outings/{outing_id}/ahead", path],
        "/api/waters/{water_id}/readings/*",
        "/api/waters/{water_id}/season",
      );
      onClose();
    },
  });
  return (
    <Sheet onClose={onClose} title={words.turnTitle}>
      <p className="mb-2">{ABOUT[asked]}</p>
      {asked === "seen" && <Neighbour outing={outing} place={place} places={places} onDone={onClose} />}
      {asked === "throat" && (
        <Throat busy={note.isPending} onNote={(sample) => note.mutate({ turn: "sample", sample })} />
      )}
      <div className="grid grid-cols-2 gap-2" hidden={asked !== "turn"}>
        {TURNS.map((turn) => (
          <Button
            key={turn}
            className="min-h-14"
            disabled={note.isPending}
            onClick={() => note.mutate({ turn })}
          >
            {say(words.turns[turn])}
          </Button>
        ))}
        <Button className="min-h-14" onClick={() => setAsked("seen")}>
          {words.neighbour}
        </Button>
        <Button className="min-h-14" onClick={() => setAsked("throat")}>
          {words.throat}
        </Button>
      </div>
      {note.isError && <Failed error={note.error} />}
    </Sheet>
  );
}
