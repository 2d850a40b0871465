/** The old notebook: its columns named, what it becomes shown, every refused line told, then all at once. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "wouter";
import { api, need, type Schemas } from "../../api/client";
import { Failed } from "../../components/states";
import { again } from "../../lib/again";
import { dayText, hoursText } from "../../lib/time";
import { Button } from "../../ui/controls";
import { FileButton } from "../../ui/FileButton";
import { Faults } from "./Faults";
import { Mapping } from "./Mapping";
import { words } from "./strings";
import { useUpload } from "./useUpload";

type Told = Schemas["NotebookOut"];
type MappingBody = Schemas["MappingBody"];
const MOST_DAYS = 30;

function Days({ days }: { days: Told["days"] }) {
  if (days.length === 0) return <p>{words.noDays}</p>;
  return (
    <div className="overflow-x-auto">
      <table className="w-full max-w-xl [&_td]:pl-3 [&_th+th]:pl-3">
        <caption className="text-left font-bold">{words.becomes}</caption>
        <thead>
          <tr className="border-b-2 border-ink text-left">
            <th scope="col">{words.day}</th>
            <th scope="col">{words.water}</th>
            <th scope="col">{words.stretches}</th>
            <th scope="col">{words.effort}</th>
            <th scope="col">{words.takes}</th>
            <th scope="col">{words.landed}</th>
          </tr>
        </thead>
        <tbody>
          {days.slice(0, MOST_DAYS).map((day) => (
            <tr key={`${day.on}${day.water_name}`} className="border-b border-rule">
              <th scope="row" className="py-1 text-left font-normal whitespace-nowrap">
                {dayText(`${day.on}T12:00:00Z`, "UTC")}
                {day.here && <span className="block text-[0.9rem] text-soft">{words.here}</span>}
              </th>
              <td>{day.water_name}</td>
              <td>{day.stretches}</td>
              <td className="whitespace-nowrap">{hoursText(day.hours)}</td>
              <td>{day.takes}</td>
              <td>{day.landed}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {days.length > MOST_DAYS && <p className="text-soft">{words.more(days.length - MOST_DAYS)}</p>}
    </div>
  );
}

export function NotebookIn() {
  const client = useQueryClient();
  const { share, send } = useUpload();
  // While another meaning is looked up, what was told before stays.
  const [shown, setShown] = useState<{ upload: string; told: Told } | null>(null);
  const found = useMutation({
    mutationFn: async (asked: File | { upload: string; mapping: MappingBody }) => {
      const upload = asked instanceof File ? await send(asked) : asked.upload;
      const at = { params: { path: { upload_id: upload } } };
      const told = await need(
        asked instanceof File
          ? api.GET("/api/notebook/{upload_id}", at)
          : api.POST("/api/notebook/{upload_id}", { ...at, body: asked.mapping }),
      );
      return { upload, told };
    },
    onSuccess: setShown,
  });
  const take = useMutation({
    mutationFn: ({ upload, mapping }: { upload: string; mapping: MappingBody }) =>
      need(
        api.POST("/api/notebook/{upload_id}/take", {
          params: { path: { upload_id: upload } },
          body: mapping,
        }),
      ),
    onSuccess: () => {
      setShown(null);
      return again(client);
    },
  });
  const told = shown?.told;
  const fresh = told?.days.filter((day) => !day.here).length ?? 0;
  return (
    <section className="space-y-2" data-testid="notebook">
      <h2>{words.book}</h2>
      <p className="max-w-prose text-soft">{words.bookAbout}</p>
      <FileButton
        label={told ? words.other : words.pick}
        accept=".csv,.tsv,.txt,text/csv,text/plain,text/tab-separated-values"
        disabled={found.isPending || take.isPending}
        onFile={(file) => {
          take.reset();
          setShown(null);
          found.mutate(file);
        }}
      />
      {found.isPending && <p role="status">{share === null ? words.reading : words.sending(share)}</p>}
      {found.isError && <Failed error={found.error} />}
      {take.isError && <Failed error={take.error} />}
      {take.isSuccess && (
        <p role="status">
          {words.takenBook(take.data.days, take.data.fish)} <Link to="/log">{words.toLog}</Link>
        </p>
      )}
      {told && shown && (
        <div className="space-y-4">
          <Mapping
            told={told}
            busy={found.isPending}
            onChange={(mapping) => found.mutate({ upload: shown.upload, mapping })}
          />
          <Days days={told.days} />
          <Faults title={words.refused(told.refused.length)} faults={told.refused} />
          {fresh > 0 && (
            <Button
              look="main"
              disabled={take.isPending || found.isPending}
              onClick={() => take.mutate({ upload: shown.upload, mapping: told.mapping })}
            >
              {words.takeBook(fresh)}
            </Button>
          )}
        </div>
      )}
    </section>
  );
}
