/** What an open set-up says: how to tie it, where to stand, how to search with it, what to change, and why. */
import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { rungText } from "../../lib/counted";
import { useReader } from "../../lib/session";
import { depthText, lengthText } from "../../lib/units";
import { words } from "./strings";

type SetUp = Schemas["SetUpOut"];

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

/** The counts, hangs or paces to try, in their order. */
function Ladder({ setUp }: { setUp: SetUp }) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  return (
    <ol className="flex flex-wrap gap-x-2 gap-y-1.5">
      {(setUp.ladder ?? []).map((rung, i) => (
        <li
          key={`${rung.count_s}${rung.float_hang_m}${rung.pace}`}
          className={`rounded-md border-2 px-2 py-0.5 whitespace-nowrap ${i === 0 ? "border-ink font-bold" : "border-rule"}`}
        >
          {rungText(unit, rung)}
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

/** One of the four things an angler does with a set-up, in their order. */
function Block({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="border-t-2 border-ink pt-1 pb-2">
      <h4 className="text-[1.1rem] font-bold">{title}</h4>
      {children}
    </section>
  );
}

function Fold({ title, children }: { title: string; children: ReactNode }) {
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">{title}</summary>
      {children}
    </details>
  );
}

/** What to stop for or to mind with this set-up; what is only usual folds away. */
function Mind({ setUp }: { setUp: SetUp }) {
  const { say } = useReader();
  if (setUp.cautions.length === 0) return null;
  return (
    <Fold title={`${words.cautions} (${setUp.cautions.length})`}>
      <ul>
        {setUp.cautions.map((caution) => (
          <li key={caution.code}>
            {caution.level !== "note" && <b className="text-warm">{words.levels[caution.level]}. </b>}
            {say(caution.sentence)}
          </li>
        ))}
      </ul>
    </Fold>
  );
}

export function SetUpDetail({ setUp }: { setUp: SetUp }) {
  const { say, settings } = useReader();
  const unit = settings.depth_unit;
  const afloat = setUp.style === "dangle" || setUp.style === "drifted";
  const rigging = Math.round((setUp.rigging_s ?? 0) / 60);
  return (
    <>
      <Block title={words.tie}>
        <p className="mb-1">
          <b>{say(setUp.line_title)}.</b>{" "}
          <span className="text-soft">{words.rigging(rigging, setUp.rod ?? null)}</span>
        </p>
        <div className="grid gap-x-6 gap-y-2 min-[34rem]:grid-cols-2">
          <div>
            <h5 className="font-semibold text-soft">{words.leader}</h5>
            <LeaderTable setUp={setUp} />
          </div>
          <div>
            <h5 className="font-semibold text-soft">{words.flies}</h5>
            <Flies setUp={setUp} />
          </div>
        </div>
      </Block>
      <Block title={words.fish}>
        <p>
          {say(setUp.retrieve.words)}.
          {!afloat && ` ${words.cast(depthText(unit, setUp.cast_m, unit === "m" ? 0 : 1))}.`}
          {setUp.stance && ` ${say(setUp.stance)}`}
        </p>
        <p>
          <span className="text-soft">{words.watch}:</span> {say(setUp.watch_for)}
        </p>
        <Mind setUp={setUp} />
      </Block>
      {((setUp.ladder ?? []).length > 1 || setUp.changes) && (
        <Block title={words.next}>
          {(setUp.ladder ?? []).length > 1 && (
            <Fold title={words.ladder}>
              <Ladder setUp={setUp} />
            </Fold>
          )}
          {setUp.changes && (
            <Fold title={words.changes}>
              <Changes changes={setUp.changes} />
            </Fold>
          )}
        </Block>
      )}
      <Block title={words.why}>
        <ul className="list-disc pl-4">
          {setUp.reasons
            // The fly's own reason stands with the fly, the count's depth in the heading.
            .filter((reason) => reason.factor !== "fly" && reason.factor !== "count")
            .map((reason) => (
              <li key={reason.factor + reason.sentence}>{say(reason.sentence)}</li>
            ))}
        </ul>
      </Block>
    </>
  );
}
