/** Take a photo, or choose one: kept at once, told about afterwards. */
import { useState } from "react";
import { MOST_PHOTOS } from "../api/generated/limits";
import type { Outing } from "../offline/overlay";
import { FileButton } from "../ui/FileButton";
import { PhotoSheet } from "./PhotoSheet";
import { words } from "./strings";
import { type PhotoBody, usePhotos } from "./usePhotos";

interface Props {
  outing: Outing;
  shows: PhotoBody["shows"];
  depth: number | null;
  className?: string;
}

export function PhotoButton({ outing, shows, depth, className = "" }: Props) {
  const { add, full } = usePhotos(outing);
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState("");
  const [made, setMade] = useState<string | null>(null);
  const photo = (outing.photos ?? []).find((one) => one.id === made);
  const take = async (file: File) => {
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
      <FileButton
        label={busy ? words.adding : words.add}
        accept="image/*"
        className={className}
        disabled={busy || full}
        onFile={(file) => void take(file)}
      />
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
