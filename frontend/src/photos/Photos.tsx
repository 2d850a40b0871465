/** The photos of a day, in time. */
import { useState } from "react";
import type { Outing } from "../offline/overlay";
import { PhotoButton } from "./PhotoButton";
import { PhotoImage, usePhotoText } from "./PhotoImage";
import { PhotoSheet } from "./PhotoSheet";
import { words } from "./strings";
import type { Photo } from "./usePhotos";

function Thumb({ photo, zone, onOpen }: { photo: Photo; zone: string; onOpen: () => void }) {
  const text = usePhotoText(photo, zone);
  return (
    <li className="w-40">
      <button type="button" onClick={onOpen} className="w-full rounded-md border-2 border-edge text-left">
        <PhotoImage photo={photo} zone={zone} size="small" className="h-28 w-full object-cover" />
        <span className="block px-1.5 py-1 text-[0.92rem]" aria-hidden>
          {text}
          {!photo.arrived && <span className="block text-soft">{words.onItsWay}</span>}
        </span>
      </button>
    </li>
  );
}

export default function Photos({ outing }: { outing: Outing }) {
  const [open, setOpen] = useState<string | null>(null);
  const photos = [...(outing.photos ?? [])].sort((a, b) => a.taken_at.localeCompare(b.taken_at));
  const shown = photos.find((one) => one.id === open);
  return (
    <section data-testid="photos">
      <h2 className="mb-1">{words.title}</h2>
      {photos.length === 0 && <p className="mb-2 text-soft">{words.none}</p>}
      <ul className="mb-2 flex flex-wrap gap-3">
        {photos.map((one) => (
          <Thumb key={one.id} photo={one} zone={outing.time_zone} onOpen={() => setOpen(one.id)} />
        ))}
      </ul>
      <PhotoButton outing={outing} shows="fish" depth={null} />
      {shown && <PhotoSheet outing={outing} photo={shown} onClose={() => setOpen(null)} />}
    </section>
  );
}

export { PhotosLayer } from "./PhotosLayer";
