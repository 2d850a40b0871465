/** What an open set-up says: how to tie it, where to stand, how to search with it, what to change, and why. */
import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { setUpCount } from "../../lib/counted";
import { useReader } from "../../lib/session";
import { depthText, lengthText } from "../../lib/units";
import { words } from "./strings";

type SetUp = Schemas["SetUpOut"];

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="grid gap-x-4 border-t border-rule py-2 min-[34rem]:grid-cols-[8.5rem_minmax(0,1fr)]">
      <h4 className="font-semibold text-soft">{title}</h4>
      <div>{children}</div>
    </div>
  );
}

function LeaderTable({ setUp }: { setUp: SetUp }) {
  const { say, settings } = useReader();
  return (
    <table className="w-full max-w-md">
      <tbody>
        {setUp.leader.map((section, i) => (
          <tr key={i}>
            <th scope="row" className="pr-3 text-left font-normal">
              {say(section.part)}
            </th>
            <td className="pr-3 text-right font-semibold whitespace-nowrap">
              {lengthText(settings.depth_unit, section.length_m)}
            </td>
            <td className="text-soft max-[34rem]:text-[0.85rem]">
              {section.x_size !== null && `${section.x_size}X · ${section.diameter_mm?.toFixed(2)} mm `}
              {section.material}
            </td>
          </tr>
        ))}
        <tr>
          <td />
          <td colSpan={2} className="pt-1 text-soft">
            {words.total(lengthText(settings.depth_unit, setUp.leader_length_m))}
          </td>
        </tr>
      </tbody>
    </table>
  );
}

/** The counts or hangs to try, in their order. */
function Ladder({ setUp }: { setUp: SetUp }) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  return (
    <ol className="flex flex-wrap gap-x-2 gap-y-1.5">
      {(setUp.ladder ?? []).map((rung, i) => (
        <li
          key={`${rung.count_s}${rung.float_hang_m}`}
          className={`rounded-md border-2 px-2 py-0.5 whitespace-nowrap ${i === 0 ? "border-ink font-bold" : "border-rule"}`}
        >
          {rung.count_s !== null
            ? setUpCount(unit, setUp, rung.count_s)
            : words.ladderHang(depthText(unit, rung.float_hang_m ?? rung.depth_m))}
        </li>
      ))}
    </ol>
  );
}

/** What to change, in order, for plucks, follows and nothing. */
function Changes({ changes }: { changes: NonNullable<SetUp["changes"]> }) {
  const { say } = useReader();
  return (
    <dl>
      {(["plucks", "follows", "nothing"] as const).map((kind) => (
        <div key={kind} className="mb-1.5">
          <dt className="font-semibold">{say(words.changeFor[kind])}</dt>
          <dd>
            <ol className="list-decimal pl-5">
              {changes[kind].map((step) => (
                <li key={step}>{say(step)}</li>
              ))}
            </ol>
          </dd>
        </div>
      ))}
    </dl>
  );
}

function Flies({ setUp }: { setUp: SetUp }) {
  const { say, settings } = useReader();
  const unit = settings.depth_unit;
  return (
    <ul className="space-y-1">
      {setUp.flies.map((fly) => (
        <li key={fly.position}>
          <span className="text-soft">{fly.position}:</span> <b>{say(fly.name)}</b>, {words.size(fly.hook)}
          <span className="text-soft">
            {" "}
            · {fly.depth_m === null ? words.depthNotKnown : depthText(unit, fly.depth_m)}
          </span>
          {fly.why && <span className="block text-[0.92rem] leading-snug text-soft">{say(fly.why)}</span>}
        </li>
      ))}
    </ul>
  );
}

export function SetUpDetail({ setUp }: { setUp: SetUp }) {
  const { say, settings } = useReader();
  const unit = settings.depth_unit;
  const afloat = setUp.style === "dangle" || setUp.style === "drifted";
  const rigging = Math.round((setUp.rigging_s ?? 0) / 60);
  return (
    <>
      <Part title={words.line}>
        {say(setUp.line_title)} <span className="text-soft">{words.rigging(rigging, setUp.rod ?? null)}</span>
      </Part>
      <Part title={words.leader}>
        <LeaderTable setUp={setUp} />
      </Part>
      <Part title={words.flies}>
        <Flies setUp={setUp} />
      </Part>
      <Part title={words.retrieve}>
        {say(setUp.retrieve.words)}.
        {!afloat && ` ${words.cast(depthText(unit, setUp.cast_m, unit === "m" ? 0 : 1))}.`}
      </Part>
      {setUp.stance && <Part title={words.stance}>{say(setUp.stance)}</Part>}
      {(setUp.ladder ?? []).length > 1 && (
        <Part title={words.ladder}>
          <Ladder setUp={setUp} />
        </Part>
      )}
      <Part title={words.watch}>{say(setUp.watch_for)}</Part>
      {setUp.changes && (
        <Part title={words.changes}>
          <Changes changes={setUp.changes} />
        </Part>
      )}
      {setUp.cautions.length > 0 && (
        <Part title={words.cautions}>
          <ul>
            {setUp.cautions.map((caution) => (
              <li key={caution.code}>
                {caution.level !== "note" && <b className="text-warm">{words.levels[caution.level]}. </b>}
                {say(caution.sentence)}
              </li>
            ))}
          </ul>
        </Part>
      )}
      <Part title={words.why}>
        <ul className="list-disc pl-4">
          {setUp.reasons
            // The fly's own reason stands with the fly, the count's depth in the heading.
            .filter((reason) => reason.factor !== "fly" && reason.factor !== "count")
            .map((reason) => (
              <li key={reason.factor + reason.sentence}>{say(reason.sentence)}</li>
            ))}
        </ul>
      </Part>
    </>
  );
}
