/** Every fly on the cord where it would be after 20 seconds: floaters at the top, the heaviest deepest. */
import { useColumn } from "../../column/scale";
import { depthText } from "../../lib/units";
import { words } from "./strings";
import type { Fly } from "./useBox";

const SECONDS = 20;

export function depthOf(fly: Fly): number {
  return Math.max(0, fly.sink_m_s * SECONDS);
}

export function SinkLayer({ flies, shown }: { flies: Fly[]; shown: string | null }) {
  const scale = useColumn();
  const hung: { slot: number; y: number }[] = [];
  return (
    <g data-layer="sink">
      <text className="halo" x={scale.cordX + 14} y={scale.surfaceY - 14} fontSize="13" fill="var(--ink)">
        {words.after}
      </text>
      {[...flies]
        .sort((a, b) => a.sink_m_s - b.sink_m_s)
        .map((fly) => {
          const y = scale.y(depthOf(fly));
          let slot = 0;
          while (hung.some((other) => other.slot === slot && Math.abs(other.y - y) < 13)) slot += 1;
          hung.push({ slot, y });
          const x = scale.cordX + 24 + slot * 19;
          const active = fly.id === shown;
          const floats = fly.sink_m_s < 0;
          return (
            <g key={fly.id}>
              <title>{`${fly.name}: ${floats ? words.classes[0] : depthText(scale.unit, depthOf(fly))}`}</title>
              {floats ? (
                <circle
                  cx={x}
                  cy={scale.surfaceY - 1}
                  r={active ? 7 : 5}
                  fill="var(--raised)"
                  stroke="var(--ink)"
                  strokeWidth={active ? 3 : 1.6}
                />
              ) : (
                <path
                  d={`M${x} ${y - 6}v8a4 4 0 0 1-8 0`}
                  fill="none"
                  stroke={active ? "var(--take)" : "var(--ink)"}
                  strokeWidth={active ? 3.5 : 2}
                />
              )}
            </g>
          );
        })}
    </g>
  );
}
