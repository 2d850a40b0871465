/** Photos of an outing: added, told otherwise, deleted, each with the way back. */
import { useEffect, useState } from "react";
import type { Schemas } from "../api/client";
import { MOST_PHOTOS } from "../api/generated/limits";
import { nowIso } from "../lib/clock";
import { useReader } from "../lib/session";
import type { Outing } from "../offline/overlay";
import { type Kept, keepPicture, keptPicture } from "../offline/pictures";
import { useOuting } from "../offline/useOuting";
import { useDone } from "../ui/UndoBar";
import { resized } from "./resize";
import { words } from "./strings";

export type Photo = Schemas["PhotoOut"];
export type PhotoBody = Schemas["PhotoBody"];

export function photoBody(photo: Photo): PhotoBody {
  const { id: _id, revision: _revision, arrived: _arrived, ...body } = photo;
  return body;
}

export function usePhotos(outing: Outing) {
  const { name } = useReader();
  const { write } = useOuting(outing.id);
  const done = useDone();
  const put = (what: string, id: string, body: PhotoBody | null) =>
    write(what, { kind: "photo", outing: outing.id, id, body });

  /** Returns the photo's id; rejects with what to say. The picture is sent once its row has arrived (`OnTheirWay`). */
  const add = async (file: File, shows: PhotoBody["shows"], depth: number | null): Promise<string> => {
    const picture = await resized(file).catch(() => {
      throw new Error(words.cannotOpen);
    });
    const id = crypto.randomUUID();
    await keepPicture(name, outing.id, id, picture).catch(() => {
      throw new Error(words.cannotKeep);
    });
    await put(words.added, id, { shows, taken_at: nowIso(), depth_m: depth, note: "" });
    done({ text: words.added, undo: () => put(`Undo: ${words.added}`, id, null) });
    return id;
  };
  const change = (photo: Photo, body: PhotoBody | null) => {
    const what = body ? words.changed : words.deleted;
    void put(what, photo.id, body);
    done({ text: what, undo: () => put(`Undo: ${what}`, photo.id, photoBody(photo)) });
  };
  return { add, change, full: (outing.photos ?? []).length >= MOST_PHOTOS };
}

/** Where a photo's picture is found: on this device, else at the server once it has arrived there. */
export function usePicture(photo: Photo, size: "small" | "whole") {
  const { name } = useReader();
  const [kept, setKept] = useState<{ here?: Kept; url?: string; looked: boolean }>({ looked: false });
  useEffect(() => {
    let url: string | undefined;
    let gone = false;
    void keptPicture(name, photo.id).then((here) => {
      if (gone) return;
      url = here && URL.createObjectURL(here.picture);
      setKept({ here, url, looked: true });
    });
    return () => {
      gone = true;
      if (url) URL.revokeObjectURL(url);
    };
  }, [name, photo.id]);
  const far = photo.arrived ? `/api/photos/${photo.id}/picture?size=${size}` : undefined;
  return {
    url: kept.url ?? (kept.looked ? far : undefined),
    refused: kept.here?.refused,
    looked: kept.looked,
  };
}
