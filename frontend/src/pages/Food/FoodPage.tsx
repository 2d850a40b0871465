/** Food: shares now and what moved them, where it lies on the cord, the year here, the catalogue. */
import { lazy, Suspense } from "react";
import { Link } from "wouter";
import { Failed, Loading } from "../../components/states";
import { TwoPane } from "../../components/TwoPane";
import { WaterTabs } from "../../components/WaterTabs";
import { WithWater } from "../../components/WithWater";
import { useRing } from "../../lib/cord";
import { type Meaning, useMeaning } from "../../lib/meaning";
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import type { Water } from "../../lib/waters";
import { Calendar } from "./Calendar";
import { Catalogue } from "./Catalogue";
import { words } from "./strings";

// The picture comes a moment after the words.
const MeaningColumn = lazy(() => import("../../components/MeaningColumn"));

export default function FoodPage() {
  return <WithWater>{(water) => <FoodWork water={water} />}</WithWater>;
}

type Food = Meaning["food"];

function Shares({ food }: { food: Food }) {
  const { say } = useReader();
  const most = Math.max(...food.shares.map((s) => Math.max(s.share, s.season_share)), 0.05);
  const x = (share: number) => `${(100 * share) / most}%`;
  return (
    <>
      <ul className="max-w-xl space-y-0.5">
        {food.shares
          .filter((one) => one.share >= 0.005)
          .map((one) => (
            <li
              key={one.key}
              className="grid grid-cols-[11rem_1fr_3.2rem] items-center gap-2 max-wide:grid-cols-[8rem_1fr_3rem]"
            >
              <span className="leading-tight">{say(one.name)}</span>
              <span
                className="relative h-5 border-b border-weed"
                title={words.shareOf(Math.round(100 * one.share), Math.round(100 * one.season_share))}
              >
                <span className="absolute inset-y-1 left-0 bg-weed" style={{ width: x(one.share) }} />
                <span className="absolute inset-y-0 w-[3px] bg-ink" style={{ left: x(one.season_share) }} />
              </span>
              <span className="text-right">{Math.round(100 * one.share)} %</span>
            </li>
          ))}
      </ul>
      <p className="mt-1 text-[0.85rem] text-soft">{words.key}</p>
    </>
  );
}

function Moved({ food }: { food: Food }) {
  const { say } = useReader();
  if (food.moves.length === 0) return <p className="text-soft">{words.nothingSeen}</p>;
  return (
    <>
      <ul className="corded space-y-1">
        {food.moves.map((move, i) => (
          <li key={`${move.what}${i}`} className="knot">
            {say(move.sentence)}
          </li>
        ))}
      </ul>
      <p className="text-soft">{words.weighs(food.counted.toFixed(1), food.prior.toFixed(0))}</p>
    </>
  );
}

function Keyed({ keyed }: { keyed: NonNullable<Food["keyed"]> }) {
  const { say } = useReader();
  const match = [
    keyed.size_mm !== null ? words.matchSize(keyed.size_mm.toFixed(0)) : "",
    keyed.colours.join(", "),
    keyed.hooks.length > 0 ? words.matchHooks(keyed.hooks.join(" or ")) : "",
  ].filter(Boolean);
  return (
    <section>
      <h2>{words.keyed}</h2>
      <p>{say(keyed.sentence)}</p>
      {match.length > 0 && (
        <p className="text-lg font-semibold">
          {words.match}: {match.join(" · ")}
        </p>
      )}
    </section>
  );
}

function Where({ food, names }: { food: Food; names: Map<string, string> }) {
  const { say } = useReader();
  return (
    <section>
      <h2>{words.where}</h2>
      <ul className="corded space-y-1">
        {food.here.map((here) => (
          <li key={here.place} className="knot">
            <span className="font-semibold">{words.whereAt(here.place)}</span>:{" "}
            {here.brings
              .slice(0, 3)
              .map((part) => say(names.get(part.prey) ?? part.prey).toLowerCase())
              .join(", ")}
          </li>
        ))}
      </ul>
    </section>
  );
}

function FoodWork({ water }: { water: Water }) {
  const { fetching } = useReading("fetching");
  const meaning = useMeaning(water.id);
  const { ring, setRing } = useRing();
  const food = meaning.data?.food;
  const names = new Map(food?.shares.map((s) => [s.key, s.name]));
  if (fetching) return <Loading what={words.fetching} />;
  return (
    <TwoPane
      column={
        <Suspense>
          <MeaningColumn
            water={water}
            meaning={meaning.data}
            page="food"
            first={["food", "light"]}
            ring={ring}
            onRing={setRing}
          />
        </Suspense>
      }
    >
      <div className="space-y-7">
        <div>
          <WaterTabs />
          <h1>{words.title}</h1>
          <p className="text-soft">{words.lead}</p>
        </div>
        {meaning.error && !food ? (
          <Failed error={meaning.error} again={() => void meaning.refetch()} />
        ) : food ? (
          <>
            <section>
              <h2>{words.now}</h2>
              <Shares food={food} />
            </section>
            {food.keyed && <Keyed keyed={food.keyed} />}
            <section>
              <h2>{words.moved}</h2>
              <Moved food={food} />
              <p>
                {words.seen}: <Link to={`/water?w=${water.id}#seen`}>{words.note}</Link>
              </p>
            </section>
            <Where food={food} names={names} />
          </>
        ) : (
          <Loading what={words.working} />
        )}
        <section>
          <h2>{words.calendar}</h2>
          <Calendar waterId={water.id} />
        </section>
        <section>
          <h2>{words.catalogue}</h2>
          <Catalogue />
        </section>
      </div>
    </TwoPane>
  );
}
