/** The column of water with the marked cord: the same depth axis on every page. */
import { type ReactNode, useId, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { DepthUnit } from "../lib/units";
import { type ColumnScale, knotDepths, makeScale, ScaleProvider, useColumn } from "./scale";
import { keepSettled } from "./settle";

interface Props {
  bedM: number;
  unit: DepthUnit;
  /** What the picture shows, for people who do not see it. */
  summary: string;
  ripple?: "calm" | "ripple" | "wave" | "unknown";
  className?: string;
  children?: ReactNode;
}

function surfacePath(scale: ColumnScale, ripple: Props["ripple"]): string {
  const high = ripple === "wave" ? 5 : ripple === "ripple" ? 2.5 : 0.6;
  const long = ripple === "wave" ? 34 : 18;
  let path = `M0 ${scale.surfaceY}`;
  for (let x = 0; x < scale.width; x += long) {
    path += ` q${long / 4} ${-high} ${long / 2} 0 t${long / 2} 0`;
  }
  return path;
}

function Water({ ripple }: { ripple: Props["ripple"] }) {
  const scale = useColumn();
  const id = useId();
  return (
    <g aria-hidden="true">
      <defs>
        <linearGradient id={`${id}w`} x1="0" x2="0" y1="0" y2="1">
          <stop offset="0" stopColor="var(--water-top)" />
          <stop offset="1" stopColor="var(--water-deep)" />
        </linearGradient>
        <pattern
          id={`${id}b`}
          width="9"
          height="9"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(35)"
        >
          <rect width="9" height="9" fill="var(--bed)" />
          <path d="M0 0v9" stroke="var(--ink)" strokeOpacity="0.25" strokeWidth="1.5" />
        </pattern>
      </defs>
      <rect width={scale.width} height={scale.surfaceY} fill="var(--sky)" />
      <rect
        y={scale.surfaceY}
        width={scale.width}
        height={scale.bedY - scale.surfaceY}
        fill={`url(#${id}w)`}
      />
      <rect y={scale.bedY} width={scale.width} height={scale.height - scale.bedY} fill={`url(#${id}b)`} />
      <path d={`M0 ${scale.bedY}H${scale.width}`} stroke="var(--ink)" strokeWidth="2" />
      <path d={surfacePath(scale, ripple)} fill="none" stroke="var(--water)" strokeWidth="2.5" />
    </g>
  );
}

function Cord() {
  const scale = useColumn();
  const knots = knotDepths(scale);
  const size = scale.narrow ? 13 : 14;
  return (
    <g aria-hidden="true">
      <path
        d={`M${scale.cordX} ${scale.surfaceY - 14}V${scale.bedY - 8}`}
        stroke="var(--cord)"
        strokeWidth="3"
        strokeLinecap="round"
      />
      <path d={`M${scale.cordX - 6} ${scale.bedY - 10}h12l-6 11z`} fill="var(--cord)" />
      <text
        x={scale.cordX - 12}
        y={scale.surfaceY - 9}
        textAnchor="end"
        fontSize={size}
        fill="var(--ink)"
        fontWeight="700"
      >
        0 {scale.unit}
      </text>
      {knots.map((knot) => (
        <g key={knot.depthM}>
          <circle cx={scale.cordX} cy={scale.y(knot.depthM)} r={knot.labelled ? 5 : 3} fill="var(--cord)" />
          {knot.labelled && scale.bedY - scale.y(knot.depthM) > 12 && (
            <text
              x={scale.cordX - 12}
              y={scale.y(knot.depthM) + 5}
              textAnchor="end"
              fontSize={size}
              fill="var(--ink)"
            >
              {knot.label}
            </text>
          )}
        </g>
      ))}
    </g>
  );
}

export function Column({ bedM, unit, summary, ripple = "unknown", className = "", children }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = box.current;
    if (!element) return;
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const watcher = new ResizeObserver(measure);
    watcher.observe(element);
    return () => watcher.disconnect();
  }, []);
  const drawing = useRef<SVGSVGElement>(null);
  const drawn = size.width > 0;
  useLayoutEffect(() => (drawn && drawing.current ? keepSettled(drawing.current) : undefined), [drawn]);
  const scale = useMemo(() => makeScale(size.width, size.height, bedM, unit), [size, bedM, unit]);
  return (
    <div ref={box} className={`overflow-hidden ${className}`}>
      {drawn && (
        <svg
          ref={drawing}
          width={size.width}
          height={size.height}
          role="group"
          aria-label={summary}
          className="block"
        >
          <ScaleProvider value={scale}>
            <Water ripple={ripple} />
            {children}
            <Cord />
          </ScaleProvider>
        </svg>
      )}
    </div>
  );
}
