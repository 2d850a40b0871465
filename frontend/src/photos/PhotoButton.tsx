/** Take a photo, or choose one: kept at once, told about afterwards. */
import { useId, useState } from "react";
import type { Outing } from "../offline/overlay";
import { Button } from "../ui/controls";
import { PhotoSheet } from "./PhotoSheet";
import { words } from "./strings";
import { MOST_PHOTOS, type PhotoBody, usePhotos } from "./usePhotos";

interface Props {
  outing: Outing;
  shows: PhotoBody["shows"];
  depth: number | null;
  className?: string;
}

export function PhotoButton({ outing, shows, depth, className = "" }: Props) {
  const id = useId();
  const { add, full } = usePhotos(outing);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState("");
  const [made, setMade] = useState<string | null>(null);
  const photo = (outing.photos ?? []).find((one) => one.id === made);
  const take = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    setFault("");
    try {
      setMade(await add(file, shows, depth));
    } catch (error) {
      setFault((error as Error).message);
    }
    setBusy(false);
  };
  return (
    <>
      <input
        id={id}
        type="file"
        accept="image/*"
        aria-label={words.add}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = ""; // the same file can be chosen again
          void take(file);
        }}
      />
      <Button
        className={className}
        disabled={busy || full}
        onClick={() => document.getElementById(id)?.click()}
      >
        {busy ? words.adding : words.add}
      </Button>
      {full && <p className="text-soft">{words.full(MOST_PHOTOS)}</p>}
      {fault && (
        <p role="alert" className="border-l-4 border-warm pl-2 text-warm">
          {fault}
        </p>
      )}
      {photo && <PhotoSheet outing={outing} photo={photo} onClose={() => setMade(null)} />}
    </>
  );
}
