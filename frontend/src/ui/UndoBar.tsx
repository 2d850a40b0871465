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
          <div className="fixed inset-x-2 bottom-20 z-20 flex items-center justify-between gap-3 rounded-lg bg-ink px-4 py-2 text-paper wide:inset-x-auto wide:right-6 wide:bottom-6">
            <span>{done.text}</span>
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
          </div>
        )}
      </div>
    </UndoContext.Provider>
  );
}
