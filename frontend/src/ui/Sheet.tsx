/** A sheet over the page for one small job; slides from the bottom on the phone. */
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";
import { Button } from "./controls";

interface Props {
  open: boolean;
  onClose: () => void;
  title: string;
  about?: string;
  children: ReactNode;
}

export function Sheet({ open, onClose, title, about, children }: Props) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-black/45" />
        <Dialog.Content
          aria-describedby={about ? undefined : ""}
          className="fixed inset-x-0 bottom-0 z-40 max-h-[92dvh] overflow-y-auto rounded-t-xl border-2 border-ink bg-raised p-4 wide:inset-x-auto wide:top-16 wide:right-10 wide:bottom-auto wide:w-[30rem] wide:rounded-xl"
        >
          <div className="mb-3 flex items-start justify-between gap-3">
            <Dialog.Title className="text-xl font-bold">{title}</Dialog.Title>
            <Dialog.Close asChild>
              <Button look="quiet" className="-mt-1 -mr-2">
                Close
              </Button>
            </Dialog.Close>
          </div>
          {about && <Dialog.Description className="mb-3 text-soft">{about}</Dialog.Description>}
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
