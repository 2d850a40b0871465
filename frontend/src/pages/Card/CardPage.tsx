/** The pocket card: one set-up on one page, to print or to keep in the hand. */
import { Link, useSearchParams } from "wouter";
import type { Schemas } from "../../api/client";
import { Empty, Loading } from "../../components/states";
import { WithWater } from "../../components/WithWater";
import { letter, setUpTitle } from "../../lib/cord";
import { setUpCount } from "../../lib/counted";
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { bandText, depthText, temperatureText } from "../../lib/units";
import type { Water } from "../../lib/waters";
import { Button, Field, Select } from "../../ui/controls";
import { CardParts } from "./CardParts";
import { words } from "./strings";

type SetUp = Schemas["SetUpOut"];

export default function CardPage() {
  return <WithWater>{(water) => <Card water={water} />}</WithWater>;
}

function Rules({ rules }: { rules: Schemas["Rules"] }) {
  const { settings, say } = useReader();
  const told = [
    rules.max_flies != null && words.flyCount(rules.max_flies),
    rules.barbless && words.barbless,
    rules.floats_allowed === false && words.noFloats,
    rules.droppers_allowed === false && words.noDroppers,
    rules.sinking_lines_allowed === false && words.noSinking,
    words.release[rules.release ?? "unknown"],
    rules.stop_above_c != null && words.stop(temperatureText(settings.temperature_unit, rules.stop_above_c)),
  ].filter((one): one is string => typeof one === "string" && one !== "");
  return (
    <p>
      {told.length > 0 ? say(`${told.join(". ")}.`) : words.rulesNone} {words.rulesCheck}
    </p>
  );
}

/** The one line that matters most, large: how deep, and how to get there. */
function HowDeep({ setUp }: { setUp: SetUp }) {
  const { settings, say } = useReader();
  const unit = settings.depth_unit;
  const how =
    setUp.float_hang_m !== null
      ? say(words.hang(depthText(unit, setUp.float_hang_m), words.kinds[setUp.float_kind ?? "fixed"]))
      : setUp.count_s !== null
        ? words.counted(setUpCount(unit, setUp))
        : "";
  const band = bandText(unit, setUp.low_m, setUp.high_m);
  const counted = setUp.float_hang_m === null && setUp.count_s !== null;
  const depth = depthText(unit, setUp.estimate_m ?? setUp.target_m);
  return (
    <p className="my-2 border-y-2 border-ink py-2">
      {how && <span className="block text-2xl font-bold">{how}</span>}
      <span>{counted ? words.band(band) : words.depth(depth, band)}</span>
      {setUp.float_hang_m !== null && <span className="block text-[0.92rem]">{say(words.mark)}</span>}
    </p>
  );
}

function Card({ water }: { water: Water }) {
  const { plan, planning, body } = useReading("plan", "planning", "body");
  const { say } = useReader();
  const [search, setSearch] = useSearchParams();
  if (!plan && planning) return <Loading what={words.working} />;
  const at = plan
    ? Math.max(
        0,
        plan.set_ups.findIndex((s) => s.key === search.get("s")),
      )
    : 0;
  const setUp = plan?.set_ups[at];
  if (!plan || !setUp)
    return (
      <Empty page title={words.none}>
        <Link to={`/plan?w=${water.id}`}>{words.back}</Link>
      </Empty>
    );
  const when = new Date(body.when).toLocaleString("en-GB", {
    timeZone: water.time_zone ?? "UTC",
    weekday: "short",
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });
  const grave = [...plan.cautions, ...setUp.cautions].filter((c) => c.level !== "note");
  const notes = setUp.cautions.filter((c) => c.level === "note");
  return (
    <div className="mx-auto w-full max-w-2xl px-4 py-4">
      <div className="no-print mb-3 flex flex-wrap items-end gap-3">
        <Field label={words.which} className="min-w-48 flex-1">
          {(p) => (
            <Select
              {...p}
              value={setUp.key}
              onChange={(e) => {
                search.set("s", e.target.value);
                setSearch(search, { replace: true });
              }}
            >
              {plan.set_ups.map((s, i) => (
                <option key={s.key} value={s.key}>
                  {letter(i)} · {setUpTitle(plan, s, say)}
                </option>
              ))}
            </Select>
          )}
        </Field>
        <Button look="main" onClick={() => window.print()}>
          {words.print}
        </Button>
        <Link
          to={`/plan?w=${water.id}&s=${encodeURIComponent(setUp.key ?? "")}`}
          className="inline-flex min-h-11 items-center"
        >
          {words.back}
        </Link>
      </div>
      <article aria-label={words.title} className="card rounded-lg border-2 border-ink bg-raised p-4">
        <h1>{say(setUp.title)}</h1>
        <p className="text-soft">
          {words.on(setUp.place, water.name)}, {words.for(when)}
        </p>
        {grave.length > 0 && (
          <ul className="my-2 border-l-4 border-warm pl-2 font-semibold text-warm">
            {grave.map((c) => (
              <li key={c.code}>{say(c.sentence)}</li>
            ))}
          </ul>
        )}
        <HowDeep setUp={setUp} />
        <CardParts setUp={setUp} notes={notes.map((c) => say(c.sentence))} />
        <section className="border-t border-rule py-1.5">
          <h2 className="text-base">{words.rules}</h2>
          <Rules rules={water.rules ?? ({} as Schemas["Rules"])} />
        </section>
      </article>
    </div>
  );
}
