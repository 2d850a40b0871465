import { useState } from "react";
import { Link } from "wouter";
import { ApiError } from "../../api/client";
import Leave from "../../components/Leave";
import { Failed, Loading } from "../../components/states";
import { useKit } from "../../lib/kit";
import { useReader, useSaveSettings } from "../../lib/session";
import { useWaters } from "../../lib/waters";
import { Button } from "../../ui/controls";
import { useDone } from "../../ui/UndoBar";
import { Costs } from "./Costs";
import { Flies } from "./Flies";
import { Lines } from "./Lines";
import { Owns } from "./Owns";
import { Reach } from "./Reach";
import { words } from "./strings";

function Settings() {
  const { settings } = useReader();
  const [value, setValue] = useState(settings);
  const save = useSaveSettings();
  const done = useDone();
  const problems = save.error instanceof ApiError ? save.error.problems : [];
  const store = () => {
    const before = settings;
    save.mutate(value, {
      onSuccess: () =>
        done({
          text: words.saved,
          undo: () => {
            setValue(before);
            save.mutate(before);
          },
        }),
    });
  };
  return (
    <section>
      <h2 className="mb-2">{words.reach}</h2>
      <Reach value={value} onChange={setValue} problemAt={(path) => problems.find((p) => p.path === path)} />
      {value.owns && <Owns value={value.owns} onChange={(owns) => setValue({ ...value, owns })} />}
      {value.costs && (
        <Costs
          value={value.costs}
          onChange={(costs) => setValue({ ...value, costs })}
          problemAt={(path) => problems.find((p) => p.path === path)}
        />
      )}
      <Button look="main" onClick={store} disabled={save.isPending}>
        {words.save}
      </Button>
    </section>
  );
}

export default function KitPage() {
  const kit = useKit();
  const waters = useWaters();
  if (kit.isPending) return <Loading what={words.opening} />;
  if (kit.isLoadingError) return <Failed error={kit.error} again={() => void kit.refetch()} />;
  return (
    <div className="mx-auto grid w-full max-w-6xl gap-x-14 gap-y-8 px-4 py-5 wide:grid-cols-2 wide:px-8">
      <header className="wide:col-span-2">
        <h1>{words.title}</h1>
        <p className="text-soft">{words.lead}</p>
      </header>
      <div className="space-y-8">
        <Lines lines={kit.data.lines} />
        <Settings />
        <section>
          <h2>{words.waters}</h2>
          <ul className="corded my-2">
            {waters.data?.map((water) => (
              <li key={water.id} className="knot py-1">
                <Link to={`/waters/${water.id}`}>{water.name}</Link>
              </li>
            ))}
          </ul>
          <Link to="/waters/new">{words.addWater}</Link>
        </section>
        <p className="flex flex-wrap items-center gap-5">
          <Leave />
          <Link to="/account">{words.account}</Link>
        </p>
      </div>
      <Flies flies={kit.data.flies} starter={kit.data.starter} />
    </div>
  );
}
