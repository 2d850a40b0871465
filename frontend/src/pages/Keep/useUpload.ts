/** A file sent in parts, so that a large one passes, and a lost part is sent again. */
import { useState } from "react";
import { ApiError, api, need } from "../../api/client";

const PART_BYTES = 2_000_000;
const TRIES = 3;

async function sendPart(upload: string, part: number, data: Blob) {
  for (let tried = 1; ; tried += 1) {
    try {
      return await need(
        api.PUT("/api/archive/{upload_id}/parts/{part}", {
          params: { path: { upload_id: upload, part } },
          body: data as unknown as string,
          bodySerializer: (body) => body as unknown as Blob,
          headers: { "Content-Type": "application/octet-stream" },
        }),
      );
    } catch (error) {
      if (error instanceof ApiError || tried >= TRIES) throw error;
    }
  }
}

export function useUpload() {
  const [share, setShare] = useState<number | null>(null);
  const send = async (file: File): Promise<string> => {
    const upload = crypto.randomUUID();
    setShare(0);
    try {
      const parts = Math.max(1, Math.ceil(file.size / PART_BYTES));
      for (let part = 0; part < parts; part += 1) {
        await sendPart(upload, part, file.slice(part * PART_BYTES, (part + 1) * PART_BYTES));
        setShare((part + 1) / parts);
      }
      return upload;
    } finally {
      setShare(null);
    }
  };
  return { share, send };
}
