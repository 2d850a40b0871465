/** How the day turned, in one word: it becomes a reading of its own, and the advice is made anew. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { ApiError, api, need, type Schemas } from "../../api/client";
import { Failed } from "../../components/states";
import { again } from "../../lib/again";
import { useReader } from "../../lib/session";
import { depthFrom } from "../../lib/units";
import { Button, Choice, Field, NumberBox } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { useDone } from "../../ui/UndoBar";
import { words } from "./strings";

type Turn = Schemas["TurnBody"]["turn"];
const TURNS: Turn[] = ["sun-out", "cloud-over", "wind-up", "wind-dropped", "coloured", "rise", "quiet"];

const MINUTES = [10, 20, 30, 60];
const TAKES = [0, 1, 2, 3, 5];

/** So many fish in so many minutes, and how deep where it could be seen. */
function Neighbour({ outing, place, onDone }: { outing: string; place: string; onDone: () => void }) {
  const { say, settings } = useReader();
  const client = useQueryClient();
  const done = useDone();
  const [takes, setTakes] = useState(1);
  const [minutes, setMinutes] = useState(30);
  const [depth, setDepth] = useState("");
  const deep = depth.trim() === "" ? null : Number(depth.replace(",", "."));
  const path = { outing_id: outing, seen_id: useState(() => crypto.randomUUID())[0] };
  const anew = () => again(client, ["next", outing]);
  const takeBack = useMutation({
    mutationFn: () => need(api.DELETE("/api/outings/{outing_id}/seen/{seen_id}", { params: { path } })),
    onSuccess: anew,
  });
  const note = useMutation({
    mutationFn: () => {
      const depth_m = deep === null ? null : depthFrom(settings.depth_unit, deep);
      const body = { seen_at: new Date().toISOString(), minutes, takes, place, depth_m };
      return need(
        api.PUT("/api/outings/{outing_id}/seen/{seen_id}", {
          params: { path },
          body: body as Schemas["SeenBody"],
        }),
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

interface Props {
  outing: string;
  /** Where one fishes: a neighbour in sight is taken to fish there too. */
  place: string;
  onClose: () => void;
}

export default function TurnSheet({ outing, place, onClose }: Props) {
  const [seen, setSeen] = useState(false);
  const { say } = useReader();
  const client = useQueryClient();
  const note = useMutation({
    mutationFn: (turn: Turn) =>
      need(
        api.POST("/api/outings/{outing_id}/turn", {
          params: { path: { outing_id: outing } },
          body: { turn, reading_id: crypto.randomUUID() },
        }),
      ),
    onSuccess: () => {
      void again(client, ["next", outing], ["readings"], ["reading"], ["season"], ["ahead", outing]);
      onClose();
    },
  });
  return (
    <Sheet onClose={onClose} title={words.turnTitle}>
      <p className="mb-2">{seen ? words.seenAbout : words.turnAbout}</p>
      {seen && <Neighbour outing={outing} place={place} onDone={onClose} />}
      <div className="grid grid-cols-2 gap-2" hidden={seen}>
        {TURNS.map((turn) => (
          <Button key={turn} className="min-h-14" disabled={note.isPending} onClick={() => note.mutate(turn)}>
            {say(words.turns[turn])}
          </Button>
        ))}
        <Button className="min-h-14" onClick={() => setSeen(true)}>
          {words.neighbour}
        </Button>
      </div>
      {note.isError && <Failed error={note.error} />}
    </Sheet>
  );
}
