/** A line at the foot that says what was done and takes it back. */
import { createContext, type ReactNode, useCallback, useContext, useEffect, useState } from "react";
import { Button } from "./controls";

interface Done {
  text: string;
  undo?: () => unknown;
}

const UndoContext = createContext<(done: Done) => void>(() => undefined);

/** Say what was done, with a way back for ten seconds. */
export function useDone() {
  return useContext(UndoContext);
}

export function UndoProvider({ children }: { children: ReactNode }) {
  const [done, setDone] = useState<Done | null>(null);
  const say = useCallback((next: Done) => setDone(next), []);
  useEffect(() => {
    if (!done) return;
    const timer = setTimeout(() => setDone(null), 10_000);
    return () => clearTimeout(timer);
  }, [done]);
  return (
    <UndoContext.Provider value={say}>
      {children}
      <div aria-live="polite" className="no-print">
        {done && (
          <div
            data-undo=""
            className="fixed inset-x-0 bottom-14 z-20 flex items-center justify-between gap-3 bg-ink px-4 py-1.5 text-paper wide:inset-x-auto wide:right-6 wide:bottom-6 wide:rounded-lg"
          >
            <span className="flex-1">{done.text}</span>
            {done.undo && (
              <Button
                look="plain"
                onClick={() => {
                  setDone(null);
                  void done.undo?.();
                }}
              >
                Undo
              </Button>
            )}
            <button
              type="button"
              aria-label="Put this line away"
              onClick={() => setDone(null)}
              className="size-11 shrink-0 text-xl"
            >
              ×
            </button>
          </div>
        )}
      </div>
    </UndoContext.Provider>
  );
}
