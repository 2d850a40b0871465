/** The parts of the card: what is tied on, how to move it, which depths in which order, what to change. */
import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { rungText } from "../../lib/counted";
import { useReader } from "../../lib/session";
import { depthText, lengthText } from "../../lib/units";
import { words } from "./strings";

type SetUp = Schemas["SetUpOut"];

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="break-inside-avoid border-t border-rule py-1.5">
      <h2 className="text-base">{title}</h2>
      {children}
    </section>
  );
}

function Tied({ setUp }: { setUp: SetUp }) {
  const { say, settings } = useReader();
  const unit = settings.depth_unit;
  return (
    <>
      <Part title={words.line}>{say(setUp.line_title)}</Part>
      <Part title={words.leader}>
        <ul>
          {setUp.leader.map((one, i) => (
            <li key={i} className="flex justify-between gap-3">
              <span>
                {say(one.part)} {one.x_size !== null && `${one.x_size}X`} {one.material}
              </span>
              <b className="whitespace-nowrap">{lengthText(unit, one.length_m)}</b>
            </li>
          ))}
          <li className="flex justify-between gap-3 text-soft">
            <span>{words.total}</span>
            <span>{lengthText(unit, setUp.leader_length_m)}</span>
          </li>
        </ul>
      </Part>
      <Part title={words.flies}>
        <ul>
          {setUp.flies.map((fly) => (
            <li key={fly.position} className="flex justify-between gap-3">
              <span>
                {fly.position}: <b>{say(fly.name)}</b>, {words.size(fly.hook)}
              </span>
              <span className="whitespace-nowrap text-soft">
                {words.fromLine(lengthText(unit, fly.from_line_m))}
              </span>
            </li>
          ))}
        </ul>
      </Part>
    </>
  );
}

function Steps({ title, steps }: { title: string; steps: string[] }) {
  const { say } = useReader();
  if (steps.length === 0) return null;
  return (
    <Part title={say(title)}>
      <ol className="list-decimal pl-5">
        {steps.map((step) => (
          <li key={step}>{say(step)}</li>
        ))}
      </ol>
    </Part>
  );
}

export function CardParts({ setUp, notes }: { setUp: SetUp; notes: string[] }) {
  const { say, settings } = useReader();
  const unit = settings.depth_unit;
  const afloat = setUp.style === "dangle" || setUp.style === "drifted";
  const ladder = setUp.ladder ?? [];
  return (
    <div className="gap-x-6 min-[40rem]:columns-2 print:columns-2">
      <Tied setUp={setUp} />
      <Part title={words.pace}>
        {say(setUp.retrieve.words)}. {!afloat && words.cast(depthText(unit, setUp.cast_m, 0))}
        {setUp.stance && ` ${say(setUp.stance)}`}
      </Part>
      {ladder.length > 1 && (
        <Part title={setUp.float_hang_m !== null ? say(words.ladderFloat) : words.ladderCount}>
          <ol className="flex flex-wrap gap-x-3 font-semibold">
            {ladder.map((rung) => (
              <li key={`${rung.count_s}${rung.float_hang_m}${rung.pace}`} className="whitespace-nowrap">
                {rungText(unit, rung)}
              </li>
            ))}
          </ol>
        </Part>
      )}
      {setUp.changes && (
        <>
          <Steps title={words.plucks} steps={setUp.changes.plucks} />
          <Steps title={words.follows} steps={setUp.changes.follows} />
          <Steps title={words.nothing} steps={setUp.changes.nothing} />
        </>
      )}
      <Part title={words.watch}>{say(setUp.watch_for)}</Part>
      {notes.length > 0 && <Part title={words.mind}>{notes.join(" ")}</Part>}
    </div>
  );
}
