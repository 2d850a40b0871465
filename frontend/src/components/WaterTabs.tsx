/** The pages about the water itself, as a row of links under the main tabs. */
import { Link, useLocation, useSearchParams } from "wouter";
import { words } from "./strings";

export function WaterTabs() {
  const [pathname] = useLocation();
  const here = useSearchParams()[0].get("w");
  return (
    <nav aria-label={words.waterPages} className="no-print -mx-1 mb-4 flex flex-wrap gap-x-1">
      {words.waterTabs.map((tab) => (
        <Link
          key={tab.to}
          to={`${tab.to}${here ? `?w=${here}` : ""}`}
          aria-current={pathname === tab.to ? "page" : undefined}
          className="flex min-h-11 items-center border-b-3 border-transparent px-2.5 text-soft no-underline aria-[current=page]:border-current aria-[current=page]:font-bold aria-[current=page]:text-ink"
        >
          {tab.label}
        </Link>
      ))}
    </nav>
  );
}
