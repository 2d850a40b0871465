/** A sheet over the page for one small job; slides from the bottom on the phone. What was typed in it is asked about. */
import { Dialog } from "radix-ui";
import { type ReactNode, useState } from "react";
import { Button } from "./controls";
import { useAskBeforeUnload, useBackCloses, useFocusBack } from "./useBack";

export interface SheetProps {
  onClose: () => void;
  title: string;
  about?: string;
  children: ReactNode;
}

const words = {
  close: "Close",
  ask: "What you typed here would be lost.",
  stay: "Go on typing",
  drop: "Throw it away",
};

/** Closes at once where nothing was touched, else asks first. */
function useClosing(onClose: () => void) {
  const [touched, setTouched] = useState(false);
  const [asking, setAsking] = useState(false);
  const close = () => {
    if (touched) setAsking(true);
    else onClose();
    return !touched;
  };
  useBackCloses(close);
  useAskBeforeUnload(touched);
  return { close, asking, stay: () => setAsking(false), touch: () => setTouched(true) };
}

export default function SheetBody({ onClose, title, about, children }: SheetProps) {
  const { close, asking, stay, touch } = useClosing(onClose);
  const focusBack = useFocusBack();
  return (
    <Dialog.Root open onOpenChange={(next) => !next && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-black/45" />
        <Dialog.Content
          aria-describedby={about ? undefined : ""}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            focusBack();
          }}
          className="fixed inset-x-0 bottom-0 z-40 max-h-[92dvh] overflow-y-auto rounded-t-xl border-2 border-ink bg-raised p-4 wide:inset-x-auto wide:top-16 wide:right-10 wide:bottom-auto wide:w-[30rem] wide:rounded-xl"
        >
          <div className="mb-3 flex items-start justify-between gap-3">
            <Dialog.Title className="text-xl font-bold">{title}</Dialog.Title>
            <Dialog.Close asChild>
              <Button look="quiet" className="-mt-1 -mr-2">
                {words.close}
              </Button>
            </Dialog.Close>
          </div>
          {asking && (
            <div role="alert" className="mb-3 border-l-4 border-warm pl-2">
              <p className="font-bold">{words.ask}</p>
              <div className="mt-1 flex flex-wrap gap-2">
                <Button look="main" onClick={stay}>
                  {words.stay}
                </Button>
                <Button look="danger" onClick={onClose}>
                  {words.drop}
                </Button>
              </div>
            </div>
          )}
          {about && <Dialog.Description className="mb-3 text-soft">{about}</Dialog.Description>}
          <div onInput={touch}>{children}</div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
