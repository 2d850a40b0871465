/** One photo, large, and what is told about it. */
import { useState } from "react";
import { PhotoBody_note_longest } from "../api/generated/limits";
import type { Outing } from "../offline/overlay";
import { Button, Choice, Field, TextBox } from "../ui/controls";
import { MeasureField, useDepthBox } from "../ui/measures";
import { Sheet } from "../ui/Sheet";
import { PhotoImage } from "./PhotoImage";
import { words } from "./strings";
import { type Photo, type PhotoBody, photoBody, usePhotos } from "./usePhotos";

export function PhotoSheet({
  outing,
  photo,
  onClose,
}: {
  outing: Outing;
  photo: Photo;
  onClose: () => void;
}) {
  const { change } = usePhotos(outing);
  const [shows, setShows] = useState<PhotoBody["shows"]>(photo.shows);
  const depth = useDepthBox(photo.depth_m);
  const [note, setNote] = useState(photo.note ?? "");
  const save = () => {
    const body = { ...photoBody(photo), shows, depth_m: depth.value, note };
    if (JSON.stringify(body) !== JSON.stringify(photoBody(photo))) change(photo, body);
    onClose();
  };
  return (
    <Sheet onClose={onClose} title={words.kind(photo.shows)} about={words.about}>
      <div className="space-y-4">
        <PhotoImage photo={photo} zone={outing.time_zone} size="whole" className="mx-auto max-h-[45dvh]" />
        <Choice
          label={words.shows}
          value={shows}
          options={words.kinds as { value: PhotoBody["shows"]; label: string }[]}
          onChange={(next) => next && setShows(next)}
        />
        <MeasureField label={words.depth} hint={words.depthHint} box={depth} />
        <Field label={words.note}>
          {(p) => (
            <TextBox
              {...p}
              maxLength={PhotoBody_note_longest}
              value={note}
              onChange={(e) => setNote(e.target.value)}
            />
          )}
        </Field>
        <div className="flex flex-wrap gap-2">
          <Button look="main" disabled={depth.bad} onClick={save}>
            {words.save}
          </Button>
          <Button
            look="danger"
            onClick={() => {
              change(photo, null);
              onClose();
            }}
          >
            {words.delete}
          </Button>
        </div>
      </div>
    </Sheet>
  );
}
