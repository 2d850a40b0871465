/** What to do next, over the buttons: one line, one tap; a second tap says why and what else there is. */
import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { useReader } from "../../lib/session";
import { Button } from "../../ui/controls";
import { signal } from "./signal";
import { words } from "./strings";
import type { Step } from "./useNext";

const NOT_NOW_MS = 5 * 60_000;

function Chance({ step }: { step: Step }) {
  return (
    <span className="text-soft">
      {step.chance > 0 && words.chance(Math.round(100 * step.chance))}
      {step.kind !== "stay" && step.chance_now > 0 && words.chanceNow(Math.round(100 * step.chance_now))}
      {step.cost_min > 0 && words.costs(Math.round(step.cost_min))}
    </span>
  );
}

function Others({ steps, onTake }: { steps: Step[]; onTake: (step: Step) => void }) {
  const { say } = useReader();
  if (steps.length === 0) return null;
  return (
    <>
      <h3 className="mt-2 text-base">{words.otherSteps}</h3>
      <ul className="space-y-1.5">
        {steps.map((step) => (
          <li key={step.words} className="border-t border-rule pt-1">
            {say(step.words)} <Chance step={step} />{" "}
            {step.kind !== "stay" && (
              <Button className="min-h-11" onClick={() => onTake(step)}>
                {words.doThis}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

interface Props {
  advice: Pick<Schemas["AdviseAnswer"], "next" | "evidence" | "plan_right">;
  /** A fish is on the line: nothing is asked of the angler. */
  playing: boolean;
  onTake: (step: Step) => void;
}

export default function NextStrip({ advice, playing, onTake }: Props) {
  const { say } = useReader();
  const [hiddenUntil, setHiddenUntil] = useState(0);
  const [first, ...others] = advice.next;
  const before = useRef(first?.kind);
  useEffect(() => {
    // The stretch has had its time: said once, as the clock says its depth.
    if (before.current === "stay" && first && first.kind !== "stay" && !playing) signal("enough");
    before.current = first?.kind;
  }, [first, playing]);
  if (!first || playing || (Date.now() < hiddenUntil && first.kind !== "stop")) return null;
  return (
    <section aria-label={words.nextTitle} className="border-t-2 border-ink pt-1" data-testid="next">
      <div className="flex items-center gap-2">
        <p role="status" className="min-w-0 flex-1 leading-tight">
          <b className={first.kind === "stop" ? "text-warm" : ""}>{say(first.words)}</b>{" "}
          {first.kind !== "stop" && <Chance step={first} />}
        </p>
        {first.kind !== "stay" && first.kind !== "stop" && (
          <Button look="main" className="min-h-12 shrink-0" onClick={() => onTake(first)}>
            {words.doIt}
          </Button>
        )}
      </div>
      <details>
        <summary className="min-h-11 cursor-pointer py-2 text-[0.95rem] text-soft">{words.whyNext}</summary>
        <ul className="list-disc pl-5">
          {[...first.reasons, ...advice.evidence].map((one) => (
            <li key={one}>{say(one)}</li>
          ))}
          {advice.plan_right < 0.5 && <li>{words.planDoubted}</li>}
        </ul>
        <Others steps={others} onTake={onTake} />
        {first.kind !== "stop" && first.kind !== "stay" && (
          <Button look="quiet" onClick={() => setHiddenUntil(Date.now() + NOT_NOW_MS)}>
            {words.notNow}
          </Button>
        )}
      </details>
    </section>
  );
}
