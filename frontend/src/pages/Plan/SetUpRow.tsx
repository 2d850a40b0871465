/** One set-up: how to tie it, fish it, and why. */
import type { ReactNode } from "react";
import type { Schemas } from "../../api/client";
import { letter } from "../../column/layers";
import { useReader } from "../../lib/session";
import { bandText, depthText, lengthText } from "../../lib/units";
import { Button } from "../../ui/controls";
import { words } from "./strings";

type SetUp = Schemas["SetUpOut"];

export function useDepthWords() {
  const { settings, say } = useReader();
  const unit = settings.depth_unit;
  return (s: SetUp): string => {
    if (s.float_hang_m !== null && s.float_kind) {
      return say(words.hang(depthText(unit, s.float_hang_m), words.kinds[s.float_kind]));
    }
    const band = bandText(unit, s.low_m, s.high_m);
    const where =
      s.estimate_m === null ? words.flyBand(band) : words.flyAt(depthText(unit, s.estimate_m), band);
    return s.count_s === null ? where : `${words.count(s.count_s)}. ${where}`;
  };
}

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

interface Props {
  setUp: SetUp;
  index: number;
  open: boolean;
  onOpen: () => void;
  onStart: () => void;
  starting: boolean;
}

export function SetUpRow({ setUp, index, open, onOpen, onStart, starting }: Props) {
  const { say, settings } = useReader();
  const depthWords = useDepthWords();
  const unit = settings.depth_unit;
  return (
    <li className="knot border-b-2 border-rule pb-3">
      <h3>
        <button
          type="button"
          aria-expanded={open}
          onClick={onOpen}
          className="flex w-full items-start gap-3 py-1 text-left"
        >
          <span
            aria-hidden="true"
            className={`mt-0.5 grid size-8 shrink-0 place-items-center rounded-full border-2 border-ink text-lg ${open ? "bg-ink text-raised" : ""}`}
          >
            {letter(index)}
          </span>
          <span className="min-w-0 flex-1">
            <span className="block text-[1.15rem]">{say(setUp.title)}</span>
            <span className="block font-normal">{depthWords(setUp)}</span>
            <span className="block text-[0.92rem] font-normal text-soft min-[34rem]:hidden">
              {words.relative(setUp.relative)}
            </span>
          </span>
          <span className="shrink-0 pt-1 text-right text-[0.92rem] font-normal text-soft max-[34rem]:hidden">
            {words.relative(setUp.relative)}
          </span>
        </button>
      </h3>
      {open && (
        <div className="mt-2 space-y-0">
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <Button look="main" onClick={onStart} disabled={starting}>
              {starting ? words.starting : words.start}
            </Button>
            <span className="max-w-sm text-[0.92rem] text-soft">{say(setUp.depth_note)}</span>
          </div>
          <Part title={words.line}>{say(setUp.line_title)}</Part>
          <Part title={words.leader}>
            <LeaderTable setUp={setUp} />
          </Part>
          <Part title={words.flies}>
            <ul>
              {setUp.flies.map((fly) => (
                <li key={fly.position}>
                  <span className="text-soft">{fly.position}:</span> <b>{say(fly.name)}</b>,{" "}
                  {words.size(fly.hook)}
                  <span className="text-soft">
                    {" "}
                    · {fly.depth_m === null ? words.depthNotKnown : depthText(unit, fly.depth_m)}
                  </span>
                </li>
              ))}
            </ul>
          </Part>
          <Part title={words.retrieve}>
            {say(setUp.retrieve.words)}. {words.cast(depthText(unit, setUp.cast_m, unit === "m" ? 0 : 1))}.
          </Part>
          <Part title={words.watch}>{say(setUp.watch_for)}</Part>
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
          <Part title={words.fallback}>{say(setUp.fallback)}</Part>
          <Part title={words.why}>
            <ul className="list-disc pl-4">
              {setUp.reasons.map((reason) => (
                <li key={reason.factor + reason.sentence}>{say(reason.sentence)}</li>
              ))}
            </ul>
          </Part>
        </div>
      )}
    </li>
  );
}
