/** A photo made small enough to keep and to send, by the browser itself; what the camera noted in it stays behind. */
import { LARGEST_PHOTO_BYTES, LONGEST_PHOTO_SIDE } from "../api/generated/limits";

const LARGEST_BYTES = 0.95 * LARGEST_PHOTO_BYTES; // some room for what is sent beside it
const QUALITIES = [0.82, 0.7, 0.55, 0.4];

function drawn(picture: ImageBitmap): HTMLCanvasElement {
  const by = Math.min(1, LONGEST_PHOTO_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, Math.round(picture.width * by));
  canvas.height = Math.max(1, Math.round(picture.height * by));
  canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return canvas;
}

const written = (canvas: HTMLCanvasElement, quality: number) =>
  new Promise<Blob | null>((done) => canvas.toBlob(done, "image/jpeg", quality));

/** Rejects for what the browser cannot open as a picture. */
export async function resized(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file, { imageOrientation: "from-image" });
  try {
    const canvas = drawn(picture);
    for (const quality of QUALITIES) {
      const found = await written(canvas, quality);
      if (found && found.size <= LARGEST_BYTES) return found;
    }
    throw new Error("no picture came of it");
  } finally {
    picture.close();
  }
}
