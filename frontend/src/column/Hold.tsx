/** Take hold of the cord: a ring that picks a depth by drag, click or arrow keys. */
import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import { depthText, FOOT_M } from "../lib/units";
import { useColumn } from "./scale";

interface Props {
  depthM: number;
  label: string;
  /** Said beside the ring: what is known at this depth. */
  note?: string;
  onChange: (depthM: number) => void;
}

export function Hold({ depthM, label, note, onChange }: Props) {
  const scale = useColumn();
  const area = useRef<SVGRectElement>(null);
  // Keys may come faster than the page draws: each starts from where the last one left the ring.
  const held = useRef(depthM);
  held.current = depthM;
  const move = (depth: number) => {
    held.current = depth;
    onChange(depth);
  };
  const step = scale.unit === "m" ? 0.1 : FOOT_M / 2;
  const snap = (d: number) => Math.max(0, Math.min(scale.bedM, Math.round(d / step) * step));
  const follow = (event: PointerEvent<SVGElement>) => {
    const box = area.current?.ownerSVGElement?.getBoundingClientRect();
    if (box) move(snap(scale.depth(event.clientY - box.top)));
  };
  const keys = (event: KeyboardEvent) => {
    const moves: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 };
    const by = moves[event.key];
    const end = event.key === "Home" ? 0 : event.key === "End" ? scale.bedM : null;
    if (by === undefined && end === null) return;
    event.preventDefault();
    move(end ?? snap(held.current + (by ?? 0) * step));
  };
  const y = scale.y(depthM);
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={Number(scale.bedM.toFixed(1))}
      aria-valuenow={Number(depthM.toFixed(2))}
      aria-valuetext={`${depthText(scale.unit, depthM)}${note ? `, ${note}` : ""}`}
      onKeyDown={keys}
      className="outline-none [&:focus-visible_.ring]:stroke-[var(--take)]"
    >
      <rect
        ref={area}
        x={0}
        y={scale.surfaceY - 10}
        width={scale.cordX + 22}
        height={scale.bedY - scale.surfaceY + 20}
        fill="transparent"
        className="cursor-ns-resize touch-none"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          follow(event);
        }}
        onPointerMove={(event) => event.buttons > 0 && follow(event)}
      />
      <circle
        className="ring"
        cx={scale.cordX}
        cy={y}
        r="10"
        fill="none"
        stroke="var(--take)"
        strokeWidth="4"
        pointerEvents="none"
      />
      {note && !scale.narrow && <Note text={`${depthText(scale.unit, depthM)} · ${note}`} y={y} />}
    </g>
  );
}

const LETTER = 7.3;

/** What is known at the ring, on a slip of paper beside it; on a narrow column in two lines. */
function Note({ text, y }: { text: string; y: number }) {
  const scale = useColumn();
  const room = scale.width - scale.cordX - 34;
  const parts = text.split(", ");
  const long = 10 + LETTER * text.length > room && parts.length > 1;
  const half = Math.ceil(parts.length / 2);
  const lines = long ? [`${parts.slice(0, half).join(", ")},`, parts.slice(half).join(", ")] : [text];
  const wide = 10 + LETTER * Math.max(...lines.map((line) => line.length));
  const top = Math.min(y - 12, scale.height - 24 * lines.length);
  return (
    <g pointerEvents="none">
      <path d={`M${scale.cordX + 11} ${y}h14`} stroke="var(--take)" strokeWidth="2" />
      <rect
        data-solid=""
        x={scale.cordX + 24}
        y={top}
        width={wide}
        height={4 + 20 * lines.length}
        rx="4"
        fill="var(--raised)"
        fillOpacity="0.92"
        stroke="var(--take)"
      />
      {lines.map((line, i) => (
        <text
          key={line}
          x={scale.cordX + 29}
          y={top + 17 + 20 * i}
          fontSize="14"
          fontWeight="700"
          fill="var(--ink)"
        >
          {line}
        </text>
      ))}
    </g>
  );
}
