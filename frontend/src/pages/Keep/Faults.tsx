/** What cannot be taken in, line by line, each with where it stands. */
import type { Problem } from "../../api/client";

export function Faults({ title, faults }: { title: string; faults: Problem[] }) {
  if (faults.length === 0) return null;
  return (
    <div className="border-l-4 border-warm pl-3" data-testid="refused">
      <p className="font-semibold">{title}</p>
      <ul className="max-h-72 overflow-y-auto leading-tight">
        {faults.map((one) => (
          <li key={`${one.path}${one.code}${one.message}`} className="py-0.5">
            <b>{one.path}</b>: {one.message}{" "}
            {one.accepted && <span className="text-soft">({one.accepted})</span>}
          </li>
        ))}
      </ul>
    </div>
  );
}
