/** What the other angler fishes, in one line. */
import { useReader } from "../../lib/session";
import { depthText } from "../../lib/units";
import type { Outing } from "../../offline/overlay";
import { words } from "./strings";
import { type Shared, useTogether } from "./useTogether";

function minutes(spell: Shared["spells"][number]): number {
  const end = spell.ended_at ? new Date(spell.ended_at).getTime() : Date.now();
  return Math.max(0, Math.floor((end - new Date(spell.started_at).getTime()) / 60_000));
}

export function BesideLine({ spell }: { spell: Shared["spells"][number] }) {
  const { say, settings } = useReader();
  const depth = spell.depth_m == null ? "" : depthText(settings.depth_unit, spell.depth_m);
  return (
    <>
      {words.besideHow(say(spell.title), depth, spell.place ?? "")} ·{" "}
      {words.besideFor(minutes(spell), spell.takes)}
    </>
  );
}

export default function Beside({ outing }: { outing: Outing }) {
  const { data } = useTogether(outing.id);
  if (!data?.open || !data.name) return null;
  const last = data.spells.at(-1);
  return (
    <p className="border-l-4 border-water pl-2 text-[0.95rem] leading-tight" data-testid="beside">
      <b>{words.beside(data.name)}:</b> {last ? <BesideLine spell={last} /> : words.notFishing}
    </p>
  );
}
