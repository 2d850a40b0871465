/** What is tied on and how to fish it, to look up between casts. */
import type { Schemas } from "../../api/client";
import { paceText } from "../../lib/paces";
import { useReader } from "../../lib/session";
import { lengthText } from "../../lib/units";
import type { Spell } from "../../offline/overlay";
import { words } from "./strings";
import { paceOf } from "./useFishing";

const HALF_A_STEP_M = 0.15; // a float is moved by 30 cm

export default function RigNote({ spell, setUp }: { spell: Spell; setUp: Schemas["SetUpOut"] | undefined }) {
  const { say, settings } = useReader();
  const unit = settings.depth_unit;
  // The leader is told as the plan cuts it: for all its flies, a float at its own hang (a stretch has that or where it fishes).
  const own = setUp?.float_hang_m == null ? [] : [setUp.float_hang_m, setUp.target_m];
  const asCut =
    setUp?.flies.length === spell.flies?.length &&
    (own.length === 0 || own.some((m) => Math.abs(m - (spell.depth_m ?? m)) < HALF_A_STEP_M));
  const rows: [string, string][] = [
    [words.place, spell.place ?? ""],
    [words.line, say(spell.line_title ?? "")],
    [
      words.leader,
      ((asCut && setUp?.leader) || [])
        .map((s) => `${say(s.part)} ${lengthText(unit, s.length_m)}`)
        .join(", "),
    ],
    [words.flies, say((spell.flies ?? []).join(", "))],
    [
      words.pace,
      setUp && paceOf(setUp) === spell.pace ? say(setUp.retrieve.words) : say(paceText(spell.pace)),
    ],
    [words.watch, say(setUp?.watch_for ?? "")],
  ];
  return (
    <dl className="mt-4 max-w-md">
      {rows
        .filter(([, text]) => text !== "")
        .map(([name, text]) => (
          <div key={name} className="border-t border-rule py-1.5">
            <dt className="text-[0.92rem] font-semibold text-soft">{name}</dt>
            <dd>{text}</dd>
          </div>
        ))}
    </dl>
  );
}
