/** The frame: name, tabs, the water in hand, and whether there is signal. */
import { lazy, type ReactNode, Suspense, useEffect, useState } from "react";
import { Link, useLocation, useSearch } from "wouter";
import { useReader } from "../lib/session";
import { currentTheme, showTheme, type Theme } from "../lib/theme";
import { useWater } from "../lib/waters";
import { fetchSheets } from "../ui/Sheet";
import { Notices } from "./Notices";
import { words } from "./strings";

const Leave = lazy(() => import("./Leave"));

/** The food of a water belongs to the Water tab. */
function here(tab: string, path: string): boolean {
  return path === tab || path.startsWith(`${tab}/`) || (tab === "/water" && path === "/food");
}

function Tabs({ className }: { className: string }) {
  const [pathname] = useLocation();
  const search = useSearch();
  return (
    <nav aria-label={words.pages} className={className}>
      {words.tabs.map((tab) => (
        <Link
          key={tab.to}
          to={`${tab.to}${tab.to === "/kit" || !search ? "" : `?${search}`}`}
          aria-current={here(tab.to, pathname) ? "page" : undefined}
          className="flex min-h-12 flex-1 items-center justify-center border-transparent px-1 font-semibold wide:px-3.5 text-soft no-underline aria-[current=page]:border-current aria-[current=page]:text-ink max-wide:border-t-4 wide:border-b-4"
        >
          {tab.label}
        </Link>
      ))}
    </nav>
  );
}

function WaterSelect() {
  const { list, water, choose } = useWater();
  const [, go] = useLocation();
  if (list.length === 0) return null;
  return (
    <select
      aria-label={words.water}
      value={water?.id ?? ""}
      onChange={(e) => (e.target.value === "new" ? go("/waters/new") : choose(e.target.value))}
      className="min-h-12 max-w-52 rounded-md border-2 border-edge bg-raised px-1.5 font-semibold"
    >
      {list.map((w) => (
        <option key={w.id} value={w.id}>
          {w.name}
        </option>
      ))}
      <option value="new">{words.addWater}</option>
    </select>
  );
}

function ThemeSelect() {
  const [theme, setTheme] = useState<Theme>(currentTheme());
  return (
    <select
      aria-label={words.theme}
      value={theme}
      onChange={(e) => {
        const next = e.target.value as Theme;
        setTheme(next);
        showTheme(next);
      }}
      className="min-h-12 rounded-md border-2 border-edge bg-raised px-1.5"
    >
      {(Object.keys(words.themes) as Theme[]).map((key) => (
        <option key={key} value={key}>
          {words.themes[key]}
        </option>
      ))}
    </select>
  );
}

/** Every page starts at its top: the clock must not open scrolled away. */
function useTop() {
  const [pathname] = useLocation();
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each page
  useEffect(() => {
    window.scrollTo(0, 0);
    const { hash } = window.location;
    if (!hash) return;
    // The part that was asked for may still be on its way.
    const end = Date.now() + 5_000;
    const timer = setInterval(() => {
      const part = document.getElementById(hash.slice(1));
      part?.scrollIntoView();
      if (part || Date.now() > end) clearInterval(timer);
    }, 100);
    return () => clearInterval(timer);
  }, [pathname]);
}

export function Shell({ children }: { children: ReactNode }) {
  const { name } = useReader();
  useTop();
  useEffect(() => {
    const timer = setTimeout(fetchSheets, 1500);
    return () => clearTimeout(timer);
  }, []);
  return (
    <div className="flex min-h-dvh flex-col">
      <a
        href="#page"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-ink focus:p-3 focus:text-paper"
      >
        {words.skip}
      </a>
      <header className="no-print z-10 flex items-center gap-x-4 border-b-2 border-ink bg-paper px-3 wide:sticky wide:top-0 wide:h-14 wide:px-5">
        <Link
          to="/plan"
          className="flex min-h-12 min-w-12 items-center gap-2 py-2 text-[1.15rem] font-bold whitespace-nowrap no-underline"
        >
          <img src="/mark.svg" alt="" className="size-7" />
          <span className="max-wide:sr-only">{words.name}</span>
        </Link>
        <Tabs className="hidden self-stretch wide:flex" />
        <div className="ml-auto flex items-center gap-2">
          <WaterSelect />
          <ThemeSelect />
          <span className="hidden items-center gap-1 wide:flex">
            <span className="text-soft">{name}</span>
            <Suspense>
              <Leave look="quiet" className="px-2" />
            </Suspense>
          </span>
        </div>
      </header>
      <Notices />
      <main id="page" tabIndex={-1} className="outline-none flex flex-1 flex-col pb-14 wide:pb-0">
        {children}
      </main>
      <Tabs className="no-print fixed inset-x-0 bottom-0 z-10 flex border-t-2 border-ink bg-paper wide:hidden" />
    </div>
  );
}
