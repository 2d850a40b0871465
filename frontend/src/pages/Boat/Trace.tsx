/** The depth under the boat over the last two minutes, on the cord. */
import { useEffect, useState } from "react";
import { useColumn } from "../../column/scale";
import type { FeedState } from "../../lib/feed";
import { depthText } from "../../lib/units";
import { OLD_S } from "./Values";

const KEPT = 120;

/** The last two minutes of depths, a value a second. */
export function useTrace(feed: FeedState | undefined): number[] {
  const [trace, setTrace] = useState<number[]>([]);
  useEffect(() => {
    if (feed?.state === "live" && feed.depth_m !== null && (feed.depth_age_s ?? 99) < OLD_S) {
      const depth = feed.depth_m;
      setTrace((old) => [...old.slice(1 - KEPT), depth]);
    }
  }, [feed]);
  return trace;
}

export function Trace({ depths }: { depths: number[] }) {
  const scale = useColumn();
  const x0 = scale.cordX + 16;
  const step = (scale.width - x0 - 10) / KEPT;
  const x = (i: number) => scale.width - 10 - step * (depths.length - 1 - i);
  const last = depths.at(-1);
  return (
    <g data-layer="trace">
      {depths.length > 1 && (
        <path
          d={`M${x(0)} ${scale.bedY}L${depths.map((d, i) => `${x(i)} ${scale.y(d)}`).join("L")}V${scale.bedY}Z`}
          fill="var(--bed)"
          stroke="var(--ink)"
          strokeWidth="1.5"
        />
      )}
      {last !== undefined && (
        <g>
          <circle cx={x(depths.length - 1)} cy={scale.y(last)} r="6" fill="var(--take)" />
          <text
            className="halo"
            x={x(depths.length - 1) - 12}
            y={scale.y(last) - 10}
            textAnchor="end"
            fontSize="20"
            fontWeight="700"
            fill="var(--ink)"
          >
            {depthText(scale.unit, last)}
          </text>
        </g>
      )}
    </g>
  );
}
