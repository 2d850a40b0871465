/** The chart as a file: out, and in. */
import { lazy, Suspense } from "react";
import { ApiError } from "../../api/client";
import { Failed } from "../../components/states";
import type { Water } from "../../lib/waters";
import { Button, Fault } from "../../ui/controls";
import { FileButton } from "../../ui/FileButton";
import { useDone } from "../../ui/UndoBar";
import { words } from "./strings";
import { type Chart, usePutOutline, useReadMap } from "./useChart";

const Import = lazy(() => import("./Import"));

export default function Files({ water, chart }: { water: Water; chart: Chart }) {
  const read = useReadMap(water.id);
  const put = usePutOutline(water.id);
  const done = useDone();
  const problems = read.error instanceof ApiError ? read.error.problems : [];
  const remove = () => {
    const before = chart.rings;
    put.mutate([], {
      onSuccess: () => done({ text: words.removedOutline, undo: () => put.mutate(before) }),
    });
  };
  return (
    <div className="space-y-1">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <FileButton
          label={words.import}
          accept=".json,.geojson,.gpx,application/geo+json,application/json,application/gpx+xml"
          disabled={read.isPending}
          onFile={(file) => read.mutate(file)}
        />
        {(chart.rings.length > 0 || chart.soundings.length > 0) && (
          <a
            href={`/api/waters/${water.id}/chart.geojson`}
            download={`${water.name}.geojson`}
            className="inline-flex min-h-11 items-center"
          >
            {words.export}
          </a>
        )}
        {chart.places.some((place) => place.position) && (
          <a
            href={`/api/waters/${water.id}/chart.gpx`}
            download={`${water.name}.gpx`}
            className="inline-flex min-h-11 items-center"
          >
            {words.exportGpx}
          </a>
        )}
        {chart.rings.length > 0 && (
          <Button look="quiet" onClick={remove}>
            {words.removeOutline}
          </Button>
        )}
      </div>
      {problems.slice(0, 4).map((p) => (
        <Fault
          key={`${p.path}${p.code}`}
          problem={{ ...p, message: p.path ? `${p.path}: ${p.message}` : p.message }}
        />
      ))}
      {read.isError && problems.length === 0 && <Failed error={read.error} />}
      {read.data && (
        <Suspense>
          <Import water={water} map={read.data} onClose={() => read.reset()} />
        </Suspense>
      )}
    </div>
  );
}
