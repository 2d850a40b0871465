/** What the float does: set against real depth, when it cocks and hangs, and whether it can be landed, drawn. */
import { ApiError } from "../../api/client";
import { useReader } from "../../lib/session";
import { secondsText } from "../../lib/time";
import { depthText } from "../../lib/units";
import { Fault } from "../../ui/controls";
import type { Answer, RigDoc } from "./rig";
import { words } from "./strings";
import { useFloatCheck } from "./useThread";

/** Rod, arm and net laid end to end beside what hangs below the float. */
function Landing({
  rod,
  arm,
  net,
  hang,
  can,
}: {
  rod: number;
  arm: number;
  net: number;
  hang: number;
  can: boolean;
}) {
  const most = Math.max(rod + arm + net, hang);
  const x = (m: number) => 8 + (284 * m) / most;
  const bars: [number, number, string][] = [
    [0, rod, "rod"],
    [rod, rod + arm, "arm"],
    [rod + arm, rod + arm + net, "net"],
  ];
  return (
    <svg viewBox="0 0 300 74" className="w-full max-w-md" role="img" aria-label={words.landing}>
      {bars.map(([a, b, name], i) => (
        <g key={name}>
          <rect
            x={x(a)}
            y={12}
            width={Math.max(0, x(b) - x(a))}
            height={14}
            fill={i % 2 ? "var(--raised)" : "var(--water)"}
            stroke="var(--ink)"
            strokeWidth="1.5"
          />
          <text x={(x(a) + x(b)) / 2} y={9} textAnchor="middle" fontSize="11" fill="var(--ink)">
            {name}
          </text>
        </g>
      ))}
      <path
        d={`M${x(0)} 46H${x(hang)}`}
        stroke={can ? "var(--ink)" : "var(--warm)"}
        strokeWidth="4"
        strokeDasharray={can ? undefined : "8 4"}
      />
      <ellipse cx={x(0)} cy="46" rx="6" ry="8" fill="var(--take)" stroke="var(--ink)" />
      <circle cx={x(hang)} cy="46" r="5" fill="var(--take)" stroke="var(--ink)" />
      <path d={`M${x(rod + arm + net)} 6V62`} stroke="var(--ink)" strokeWidth="1.5" strokeDasharray="3 3" />
    </svg>
  );
}

export function FloatPanel({ rig, answer }: { rig: RigDoc; answer: Answer | undefined }) {
  const { settings, say } = useReader();
  const unit = settings.depth_unit;
  const check = useFloatCheck(rig, rig.float != null);
  if (!rig.float) return null;
  const told = answer?.float;
  const fault = check.error instanceof ApiError ? check.error.problems[0] : undefined;
  return (
    <div className="space-y-2" data-testid="float-panel">
      {told && (
        <>
          <p className="font-semibold">
            {say(words.hangs(depthText(unit, told.set_m), depthText(unit, told.real_m)))}
          </p>
          <p>
            {say(
              words.hangsAfter(
                secondsText(told.hangs_after_s),
                told.cocks_after_s === null ? "–" : secondsText(told.cocks_after_s),
              ),
            )}{" "}
            {words.load(`${told.load_g.toFixed(2)} g`)}
          </p>
        </>
      )}
      {check.data && (
        <>
          <h4 className="font-bold">{words.landing}</h4>
          <p className={check.data.can_land ? "" : "font-bold text-warm"}>
            {(check.data.hang_m <= check.data.limit_m ? words.landYes : words.landNo)(
              depthText(unit, check.data.hang_m),
              depthText(unit, check.data.limit_m),
            )}
          </p>
          <Landing
            rod={check.data.rod_m}
            arm={check.data.arm_m}
            net={check.data.net_m}
            hang={check.data.hang_m}
            can={check.data.can_land}
          />
          <p>
            {words.mark(depthText(unit, check.data.mark_from_point_m, 2))}{" "}
            {words.closer(depthText(unit, check.data.farthest_cast_m, 0))}
          </p>
          <ul className="list-disc pl-5">
            {check.data.advice.map((one) => (
              <li key={one}>{say(one)}</li>
            ))}
          </ul>
        </>
      )}
      {fault && !answer && <Fault problem={fault} />}
    </div>
  );
}
