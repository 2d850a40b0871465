/** The boat's track of a day: taken in from a GPX file, told as the drift of each stretch, saved again. */

import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ApiError, api, need, type Schemas } from "../../api/client";
import { also, routes } from "../../api/routes";
import { Failed } from "../../components/states";
import { again } from "../../lib/again";
import { asFile } from "../../lib/asFile";
import { useReader } from "../../lib/session";
import { clockText } from "../../lib/time";
import { depthTo } from "../../lib/units";
import type { Outing } from "../../offline/overlay";
import { Button, Fault } from "../../ui/controls";
import { FileButton } from "../../ui/FileButton";
import { useDone } from "../../ui/UndoBar";
import { words } from "./strings";

type Drift = Schemas["DriftOut"];

function useTrack(outing: Outing) {
  const client = useQueryClient();
  const path = { outing_id: outing.id };
  const question = routes.queryOptions("get", "/api/outings/{outing_id}/track", { params: { path } });
  const changed = () => again(client, "/api/outings/{outing_id}/track");
  return {
    told: useQuery(also(question, outing.spells.length, outing.ended_at)),
    take: useMutation({
      mutationFn: (file: File) =>
        need(api.POST("/api/outings/{outing_id}/track", { params: { path }, ...asFile(file) })),
      onSuccess: changed,
    }),
    remove: useMutation({
      mutationFn: () => need(api.DELETE("/api/outings/{outing_id}/track", { params: { path } })),
      onSuccess: changed,
    }),
  };
}

export function Track({ outing }: { outing: Outing }) {
  const { settings, say } = useReader();
  const done = useDone();
  const { told, take, remove } = useTrack(outing);
  const zone = outing.time_zone;
  const faults = take.error instanceof ApiError ? take.error.problems : [];
  const line = (drift: Drift) => {
    const spell = outing.spells.find((one) => one.id === drift.spell_id);
    if (!spell) return null;
    const unit = settings.depth_unit;
    const long = (metres: number) => `${depthTo(unit, metres).toFixed(0)} ${unit}`;
    return (
      <li key={drift.spell_id}>
        <b>{clockText(spell.started_at, zone)}</b> {say(spell.title)}:{" "}
        {words.drift(long(drift.metres), long(60 * drift.speed_m_s), drift.towards)}
      </li>
    );
  };
  return (
    <section data-testid="track">
      <h2 className="mb-1">{words.track}</h2>
      {told.data === null && <p className="mb-2 text-soft">{words.noTrack}</p>}
      {told.data && (
        <>
          <p>
            {words.trackOf(clockText(told.data.from_at, zone), clockText(told.data.to_at, zone))}
            {told.data.drifts.length === 0 && ` ${words.noDrift}`}
          </p>
          <ul className="mb-2">{told.data.drifts.map(line)}</ul>
        </>
      )}
      {faults.map((p) => (
        <Fault key={p.code} problem={p} />
      ))}
      {take.isError && faults.length === 0 && <Failed error={take.error} />}
      <div className="flex flex-wrap items-center gap-2">
        <FileButton
          label={told.data ? words.otherTrack : words.takeTrack}
          accept=".gpx,application/gpx+xml"
          disabled={take.isPending}
          onFile={(file) => take.mutate(file)}
        />
        {told.data && (
          <>
            <a
              href={`/api/outings/${outing.id}/track.gpx`}
              download={`track-${outing.started_at.slice(0, 10)}.gpx`}
            >
              {words.saveTrack}
            </a>
            <Button
              look="quiet"
              onClick={() =>
                remove.mutate(undefined, { onSuccess: () => done({ text: words.trackDeleted }) })
              }
            >
              {words.deleteTrack}
            </Button>
          </>
        )}
      </div>
    </section>
  );
}
