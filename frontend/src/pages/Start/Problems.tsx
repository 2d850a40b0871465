/** Everything a form still lacks, in one place; and the way to the first of it. */
import type { Problem } from "../../api/client";
import { words } from "./strings";

/** Bring the first faulty field into view and give it the focus; folded parts open for it. */
export function toFirstFault() {
  requestAnimationFrame(() => {
    const fault = document.querySelector<HTMLElement>("main [aria-invalid=true], main [role=alert]");
    const told = fault?.getAttribute("role") === "alert";
    const field = told ? fault?.closest("section, li")?.querySelector<HTMLElement>("button, input") : fault;
    for (let box = fault?.closest("details"); box; box = box.parentElement?.closest("details"))
      box.open = true;
    fault?.scrollIntoView({ block: "center" });
    field?.focus({ preventScroll: true });
  });
}

export function Problems({ list }: { list: Problem[] }) {
  if (list.length === 0) return null;
  return (
    <div className="border-l-4 border-warm pl-2 text-warm" data-testid="missing">
      <p className="font-bold">{words.problem}</p>
      <ul className="list-disc pl-5">
        {list.map((one) => (
          <li key={one.path + one.message}>{one.message}</li>
        ))}
      </ul>
    </div>
  );
}
