/** Photos on the cord, each in a frame at the depth it was taken at. */
import { useColumn } from "../column/scale";
import type { Outing } from "../offline/overlay";
import { usePhotoText } from "./PhotoImage";
import { type Photo, usePicture } from "./usePhotos";

const WIDE = 52;
const HIGH = 39;

function Hung({ photo, zone, x, y }: { photo: Photo; zone: string; x: number; y: number }) {
  const text = usePhotoText(photo, zone);
  const { url } = usePicture(photo, "small");
  return (
    <g>
      <title>{text}</title>
      <path d={`M${x - 8} ${y}H${x}`} stroke="var(--ink)" strokeWidth="1.5" />
      <rect
        x={x}
        y={y - HIGH / 2}
        width={WIDE}
        height={HIGH}
        fill="var(--raised)"
        stroke="var(--ink)"
        strokeWidth="2"
      />
      {url && (
        <image
          href={url}
          x={x + 2}
          y={y - HIGH / 2 + 2}
          width={WIDE - 4}
          height={HIGH - 4}
          preserveAspectRatio="xMidYMid slice"
        />
      )}
    </g>
  );
}

export function PhotosLayer({ outing }: { outing: Outing }) {
  const scale = useColumn();
  const rows = new Map<number, number>();
  return (
    <g data-layer="photos">
      {(outing.photos ?? []).map((photo) => {
        if (photo.depth_m == null || photo.depth_m > scale.bedM) return null;
        const y = scale.y(photo.depth_m);
        const row = Math.round(y / HIGH);
        const place = rows.get(row) ?? 0;
        rows.set(row, place + 1);
        return (
          <Hung
            key={photo.id}
            photo={photo}
            zone={outing.time_zone}
            x={scale.cordX + 10 + place * (WIDE + 6)}
            y={y}
          />
        );
      })}
    </g>
  );
}
