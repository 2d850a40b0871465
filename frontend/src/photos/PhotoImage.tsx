/** A photo's picture, or why there is none here. */
import { useState } from "react";
import { useReader } from "../lib/session";
import { clockText } from "../lib/time";
import { depthText } from "../lib/units";
import { words } from "./strings";
import { type Photo, usePicture } from "./usePhotos";

/** What a photo is, in a line: for those who do not see it, and below it. */
export function usePhotoText(photo: Photo, zone: string): string {
  const { settings } = useReader();
  const depth = photo.depth_m == null ? "" : depthText(settings.depth_unit, photo.depth_m);
  const parts = [clockText(photo.taken_at, zone), words.kind(photo.shows), depth, photo.note ?? ""];
  return parts.filter(Boolean).join(" · ");
}

interface Props {
  photo: Photo;
  zone: string;
  size: "small" | "whole";
  className?: string;
}

export function PhotoImage({ photo, zone, size, className = "" }: Props) {
  const text = usePhotoText(photo, zone);
  const { url, refused, looked } = usePicture(photo, size);
  const [failed, setFailed] = useState<string | null>(null);
  if (refused) return <p className="border-l-4 border-warm pl-2 text-warm">{refused}</p>;
  if (looked && (!url || failed === url))
    return <p className="grid min-h-24 place-items-center bg-paper p-2 text-soft">{words.notHere}</p>;
  if (!url) return <span className="block min-h-24" />;
  return (
    <img src={url} alt={text} onError={() => setFailed(url)} className={`block rounded-md ${className}`} />
  );
}
