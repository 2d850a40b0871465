/** How the day turned, in one word: it becomes a reading of its own, and the advice is made anew. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, need, type Schemas } from "../../api/client";
import { Failed } from "../../components/states";
import { again } from "../../lib/again";
import { useReader } from "../../lib/session";
import { Button } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { words } from "./strings";

type Turn = Schemas["TurnBody"]["turn"];
const TURNS: Turn[] = ["sun-out", "cloud-over", "wind-up", "wind-dropped", "coloured", "rise", "quiet"];

export default function TurnSheet({ outing, onClose }: { outing: string; onClose: () => void }) {
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
      <p className="mb-2">{words.turnAbout}</p>
      <div className="grid grid-cols-2 gap-2">
        {TURNS.map((turn) => (
          <Button key={turn} className="min-h-14" disabled={note.isPending} onClick={() => note.mutate(turn)}>
            {say(words.turns[turn])}
          </Button>
        ))}
      </div>
      {note.isError && <Failed error={note.error} />}
    </Sheet>
  );
}
