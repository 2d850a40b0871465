import { useState } from "react";
import { useLocation, useParams } from "wouter";
import { ApiError } from "../../api/client";
import { Empty, Failed, Loading } from "../../components/states";
import { words as shellWords } from "../../components/strings";
import { useReader } from "../../lib/session";
import { loadForNow, saveForNow } from "../../lib/store";
import { useWaters, type Water } from "../../lib/waters";
import { Button } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { Problems, toFirstFault } from "./Problems";
import { words } from "./strings";
import { useDeleteWater, useSaveWater } from "./useWaterForm";
import { WaterForm } from "./WaterForm";
import { draftOfWater, emptyWater, readWater, type WaterDraft } from "./waterDraft";

export default function WaterFormPage() {
  const { id = "new" } = useParams();
  const waters = useWaters();
  if (waters.isPending) return <Loading what={shellWords.fetchingWaters} />;
  if (waters.isLoadingError) return <Failed error={waters.error} again={() => void waters.refetch()} />;
  const water = waters.data.find((w) => w.id === id);
  if (id !== "new" && !water) return <Empty page title={shellWords.unknownWater} />;
  return <Editor key={id} water={water} />;
}

function Editor({ water }: { water?: Water }) {
  const { settings } = useReader();
  const [id] = useState(() => water?.id ?? crypto.randomUUID());
  // Half typed, it outlives a reload; an empty page of a new water is a new one.
  const kept = `water:${water?.id ?? "new"}`;
  const [draft, setKept] = useState(
    () => loadForNow<WaterDraft | null>(kept, null) ?? (water ? draftOfWater(water, settings) : emptyWater()),
  );
  const setDraft = (next: WaterDraft) => {
    setKept(next);
    saveForNow(kept, next);
  };
  const [tried, setTried] = useState(false);
  const save = useSaveWater();
  const remove = useDeleteWater();
  const done = useDone();
  const [, go] = useLocation();
  const read = readWater(draft, settings);
  const refused = save.error instanceof ApiError ? save.error.problems : [];
  const problems = [...(tried ? read.problems : []), ...refused];
  const store = () => {
    setTried(true);
    if (read.problems.length === 0)
      save.mutate(
        { id, body: read.body },
        {
          onSuccess: () => {
            saveForNow(kept, null);
            go(`/water?w=${id}`);
          },
        },
      );
    else toFirstFault();
  };
  return (
    <div className="mx-auto w-full max-w-3xl space-y-5 px-4 py-5">
      <h1>{water ? words.editTitle : words.newTitle}</h1>
      <WaterForm
        settings={settings}
        value={draft}
        onChange={setDraft}
        problemAt={(path) => problems.find((p) => p.path === path)}
      />
      <Problems list={problems} />
      {save.isError && refused.length === 0 && <Failed error={save.error} again={store} />}
      <div className="flex flex-wrap gap-2">
        <Button look="main" onClick={store} disabled={save.isPending}>
          {words.save}
        </Button>
        {water && (
          <Button
            look="danger"
            onClick={() =>
              remove.mutate(id, {
                onSuccess: () => {
                  saveForNow(kept, null);
                  done({
                    text: words.removed,
                    undo: () =>
                      save.mutate({ id, body: readWater(draftOfWater(water, settings), settings).body }),
                  });
                  go("/water");
                },
              })
            }
          >
            {words.remove}
          </Button>
        )}
      </div>
    </div>
  );
}
