/** The fly box: every pattern on the cord by how fast it sinks, what fits today, recipes, the tie list. */
import { lazy, Suspense, useState } from "react";
import { Link, useSearchParams } from "wouter";
import { ApiError, type Schemas } from "../../api/client";
import { Column } from "../../column/Column";
import { Empty, Failed, Loading } from "../../components/states";
import { TwoPane } from "../../components/TwoPane";
import { WithWater } from "../../components/WithWater";
import { useCatalogue } from "../../lib/catalogue";
import { useAddStarter, useKit } from "../../lib/kit";
import { useReader } from "../../lib/session";
import { Button, Fault, Field, Select, TextBox, Tick } from "../../ui/controls";
import { FileButton } from "../../ui/FileButton";
import { PatternRow } from "./PatternRow";
import { depthOf, SinkLayer } from "./SinkLayer";
import { words } from "./strings";
import { TieList, Today } from "./Today";
import { type Fly, useTakeBox } from "./useBox";

const PatternSheet = lazy(() => import("./PatternSheet"));

export default function FlyBoxPage() {
  return <WithWater planned={false}>{() => <Box />}</WithWater>;
}

/** Search and filters live in the address, so that a view can be shared. */
function useFilters() {
  const [search, setSearch] = useSearchParams();
  const get = (name: string) => search.get(name) ?? "";
  const set = (name: string, value: string) =>
    setSearch(
      (old) => {
        if (value) old.set(name, value);
        else old.delete(name);
        return old;
      },
      { replace: true },
    );
  return { get, set };
}

type Filters = ReturnType<typeof useFilters>;

function fits(fly: Fly, { get }: Filters, say: (text: string) => string): boolean {
  const text = get("q").toLowerCase();
  const hay = [
    fly.name,
    say(fly.name),
    fly.family ?? "",
    fly.tone,
    ...fly.recipe.materials.map((m) => `${m.colour} ${m.what}`),
  ];
  return (
    (!text || hay.join(" ").toLowerCase().includes(text)) &&
    (!get("prey") || fly.prey.some((p) => p === get("prey"))) &&
    (!get("tone") || fly.tone === get("tone")) &&
    (!get("sinks") || fly.sink_class === get("sinks")) &&
    (get("stock") !== "1" || (fly.stock ?? 0) > 0)
  );
}

function FilterRow({ filters }: { filters: Filters }) {
  const { say } = useReader();
  const { get, set } = filters;
  const catalogue = useCatalogue().data;
  const choose = (name: string, label: string, options: [string, string][]) => (
    <Field label={label} className="w-40">
      {(p) => (
        <Select {...p} value={get(name)} onChange={(e) => set(name, e.target.value)}>
          <option value="">{words.any}</option>
          {options.map(([value, text]) => (
            <option key={value} value={value}>
              {text}
            </option>
          ))}
        </Select>
      )}
    </Field>
  );
  return (
    <div className="no-print flex flex-wrap items-end gap-3">
      <Field label={words.search} className="w-48">
        {(p) => <TextBox {...p} type="search" value={get("q")} onChange={(e) => set("q", e.target.value)} />}
      </Field>
      {choose("prey", words.prey, catalogue?.prey.map((p) => [p.key, say(p.name)]) ?? [])}
      {choose("tone", words.tone, Object.entries(words.tones))}
      {choose(
        "sinks",
        words.sinks,
        words.classes.map((c) => [c, c]),
      )}
      <Tick
        label={words.inStock}
        checked={get("stock") === "1"}
        onChange={(on) => set("stock", on ? "1" : "")}
      />
    </div>
  );
}

function Files() {
  const take = useTakeBox();
  const problems = take.error instanceof ApiError ? take.error.problems : [];
  return (
    <section className="no-print space-y-1">
      <h2>{words.files}</h2>
      <div className="flex flex-wrap items-center gap-4">
        <FileButton
          label={words.import}
          accept=".json,.csv,application/json,text/csv"
          disabled={take.isPending}
          onFile={(file) => take.mutate(file)}
        />
        <a href="/api/kit/flies.json" download="flies.json" className="inline-flex min-h-11 items-center">
          {words.asJson}
        </a>
        <a href="/api/kit/flies.csv" download="flies.csv" className="inline-flex min-h-11 items-center">
          {words.asCsv}
        </a>
      </div>
      {take.isSuccess && <p role="status">{words.imported(take.data.taken)}</p>}
      {problems.slice(0, 6).map((p) => (
        <Fault
          key={`${p.path}${p.code}`}
          problem={{ ...p, message: p.path ? `${p.path}: ${p.message}` : p.message }}
        />
      ))}
      {take.isError && problems.length === 0 && <Failed error={take.error} />}
    </section>
  );
}

function Patterns({
  kit,
  onShow,
  onEdit,
}: {
  kit: Schemas["KitOut"];
  onShow: (id: string | null) => void;
  onEdit: (fly: Fly | null) => void;
}) {
  const { say } = useReader();
  const filters = useFilters();
  const add = useAddStarter();
  const shown = kit.flies.filter((fly) => fits(fly, filters, say));
  const missing = kit.starter.filter((s) => !kit.flies.some((fly) => fly.name === s.name));
  return (
    <section className="no-print space-y-2">
      {kit.flies.length === 0 ? (
        <Empty title={words.empty}>
          <p>{words.emptyAbout}</p>
        </Empty>
      ) : (
        <>
          <FilterRow filters={filters} />
          <p role="status" className="text-soft">
            {words.found(shown.length, kit.flies.length)}
          </p>
          <ul className="border-t border-rule">
            {shown.map((fly) => (
              <PatternRow
                key={fly.id}
                fly={fly}
                onOpen={(open) => onShow(open ? fly.id : null)}
                onEdit={() => onEdit(fly)}
              />
            ))}
          </ul>
          {shown.length === 0 && <p>{words.none}</p>}
        </>
      )}
      <p className="flex flex-wrap gap-2">
        <Button onClick={() => onEdit(null)}>{words.add}</Button>
        {missing.length > 0 && (
          <Button onClick={() => add.mutate(missing.map((s) => s.key))} disabled={add.isPending}>
            {words.addStarter(missing.length)}
          </Button>
        )}
      </p>
    </section>
  );
}

function Box() {
  const kit = useKit();
  const { settings } = useReader();
  const [shown, setShown] = useState<string | null>(null);
  const [editing, setEditing] = useState<Fly | "new" | null>(null);
  if (kit.isPending) return <Loading what={words.working} />;
  if (kit.isLoadingError) return <Failed error={kit.error} again={() => void kit.refetch()} />;
  const { flies } = kit.data;
  const deepest = Math.max(2, ...flies.map(depthOf)) * 1.1;
  return (
    <TwoPane
      column={
        <Column bedM={deepest} unit={settings.depth_unit} summary={words.column} className="h-full">
          <SinkLayer flies={flies} shown={shown} />
        </Column>
      }
    >
      <div className="space-y-7">
        <header>
          <h1>{words.title}</h1>
          <p className="text-soft">
            {words.lead} <Link to="/kit">{words.toKit}</Link>
          </p>
        </header>
        {flies.length > 0 && <Today />}
        <Patterns kit={kit.data} onShow={setShown} onEdit={(fly) => setEditing(fly ?? "new")} />
        {flies.length > 0 && <TieList />}
        <Files />
        {editing && (
          <Suspense>
            <PatternSheet fly={editing === "new" ? null : editing} onClose={() => setEditing(null)} />
          </Suspense>
        )}
      </div>
    </TwoPane>
  );
}
