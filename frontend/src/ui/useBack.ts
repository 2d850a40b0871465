/** What lies over a page: the Back of the device closes it before anything else, and focus goes back to where it was. */
import { useEffect, useRef } from "react";

interface Stamped {
  over?: string;
}

function stamp(): string | undefined {
  return (window.history.state as Stamped | null)?.over;
}

/** Back closes; where `close` answers false, it stays open. */
export function useBackCloses(close: () => boolean) {
  const last = useRef(close);
  last.current = close;
  useEffect(() => {
    const over = crypto.randomUUID();
    const push = () => window.history.pushState({ ...window.history.state, over }, "");
    push();
    const back = () => {
      if (stamp() !== over && !last.current()) push();
    };
    window.addEventListener("popstate", back);
    return () => {
      window.removeEventListener("popstate", back);
      // Closed by its own button: the entry made for it goes too, unless the page has gone on already.
      if (stamp() === over) window.history.back();
    };
  }, []);
}

/** A way to give focus back to what had it when this opened, or to the page where that is gone. */
export function useFocusBack() {
  const was = useRef<Element | null>(null);
  was.current ??= document.activeElement;
  return () => {
    const target = was.current;
    if (target instanceof HTMLElement && target !== document.body && target.isConnected) target.focus();
    else document.getElementById("page")?.focus();
  };
}

/** The browser asks before a reload or a closed tab takes what was typed. */
export function useAskBeforeUnload(on: boolean) {
  useEffect(() => {
    if (!on) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener("beforeunload", ask);
    return () => window.removeEventListener("beforeunload", ask);
  }, [on]);
}
