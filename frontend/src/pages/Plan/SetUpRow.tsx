/** One set-up: its depth at a glance; open, everything it says, and the ways to pin it and change its parts. */
import { lazy, type ReactNode, Suspense, useEffect, useRef } from "react";
import { Link } from "wouter";
import type { Schemas } from "../../api/client";
import { letter } from "../../lib/cord";
import { setUpCount } from "../../lib/counted";
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { bandText, depthText } from "../../lib/units";
import { Button } from "../../ui/controls";
import { SetUpDetail } from "./SetUpDetail";
import { words } from "./strings";

const HandEditor = lazy(() => import("./HandEditor"));

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
    return s.count_s === null ? where : `${words.counted(setUpCount(unit, s))}, ${words.somewhere(band)}`;
  };
}

/** What is expected: takes an hour where the log can say, else the rate against the best. */
function rateText(setUp: SetUp): string {
  const e = setUp.expected;
  if (!e) return words.relative(setUp.relative);
  return words.expected(e.takes_per_h.toFixed(1), e.low_per_h.toFixed(1), e.high_per_h.toFixed(1));
}

interface Props {
  setUp: SetUp;
  index: number;
  /** What it is called among those of the plan. */
  title: string;
  open: boolean;
  /** Opened by somebody, not by its rank: then its heading comes to the top. */
  chosen: boolean;
  onOpen: () => void;
  onStart: () => void;
  startWords: string;
  /** Why it cannot be started just now. */
  wait: string | null;
  /** The editor of a set-up made by hand; the way to pin one that is not. */
  editor?: ReactNode;
  onPin: (() => void) | null;
  cardTo: string;
}

export function SetUpRow({
  setUp,
  index,
  title,
  open,
  chosen,
  onOpen,
  onStart,
  startWords,
  wait,
  editor,
  onPin,
  cardTo,
}: Props) {
  const { say } = useReader();
  const depthWords = useDepthWords();
  const { day } = useReading("day");
  const rate = rateText(setUp);
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (chosen) row.current?.scrollIntoView({ block: "start" });
  }, [chosen]);
  return (
    <li ref={row} className="knot scroll-mt-2 wide:scroll-mt-16 border-b-2 border-rule pb-3">
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
            <span className="block text-[1.15rem]">{title}</span>
            <span className="block font-normal">{depthWords(setUp)}</span>
            <span className="block text-[0.92rem] font-normal text-soft min-[34rem]:hidden">{rate}</span>
          </span>
          <span className="max-w-40 shrink-0 pt-1 text-right text-[0.92rem] font-normal text-soft max-[34rem]:hidden">
            {rate}
          </span>
        </button>
      </h3>
      {open && (
        <div className="mt-2">
          <div className="mb-3 flex flex-wrap items-center gap-2">
            <Button look="main" onClick={onStart} disabled={wait !== null}>
              {wait ?? startWords}
            </Button>
            {onPin && <Button onClick={onPin}>{words.byHand}</Button>}
            <Link to={cardTo} className="inline-flex min-h-11 items-center px-2 font-semibold">
              {words.card}
            </Link>
          </div>
          <p className="mb-2 text-[0.92rem] text-soft">
            {setUp.by_hand != null && `${words.pinned} `}
            {say(setUp.depth_note)}
            {setUp.expected &&
              ` ${words.session(setUp.expected.session_takes, day.hours)} ${words.against(setUp.relative)}`}
          </p>
          {editor && <Suspense>{editor}</Suspense>}
          <SetUpDetail setUp={setUp} />
        </div>
      )}
    </li>
  );
}

export { HandEditor };
