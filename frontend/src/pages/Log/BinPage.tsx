/** What was deleted lies here for thirty days, and is brought back with one tap. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { Link } from "wouter";
import { api, need, type Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { Empty, Failed, Loading } from "../../components/states";
import { again } from "../../lib/again";
import { useReader } from "../../lib/session";
import { dayAndClock } from "../../lib/time";
import { Button } from "../../ui/controls";
import { words } from "./strings";

type Row = Schemas["BinRowOut"];
const DAY_MS = 86_400_000;

function BinRow({ row, onBack, busy }: { row: Row; onBack: () => void; busy: boolean }) {
  const { say } = useReader();
  const left = Math.max(0, Math.ceil((new Date(row.gone_at).getTime() - Date.now()) / DAY_MS));
  const of = row.of ? `, ${dayAndClock(row.of, row.time_zone)}` : "";
  return (
    <li className="flex items-center gap-3 border-b border-rule py-1.5">
      <p className="flex-1 leading-tight">
        <b>{say(row.what)}</b>
        {of}
        <span className="block text-[0.92rem] text-soft">
          {words.binLeft(dayAndClock(row.deleted_at, row.time_zone), left)}
        </span>
      </p>
      <Button onClick={onBack} disabled={busy} aria-label={`${words.bringBack}: ${row.what}${of}`}>
        {words.bringBack}
      </Button>
    </li>
  );
}

export default function BinPage() {
  const client = useQueryClient();
  const lying = routes.useQuery("get", "/api/bin");
  const back = useMutation({
    mutationFn: (row: Row) =>
      need(
        api.POST("/api/bin/{kind}/{row_id}/restore", {
          params: { path: { kind: row.kind, row_id: row.id } },
        }),
      ),
    onSuccess: () => again(client),
  });
  if (lying.isPending) return <Loading what={words.openingBin} />;
  if (lying.isLoadingError) return <Failed error={lying.error} again={() => void lying.refetch()} />;
  return (
    <div className="mx-auto w-full max-w-3xl space-y-4 px-4 py-5">
      <div>
        <Link to="/log">{words.back}</Link>
        <h1>{words.bin}</h1>
        <p className="text-soft">{words.binAbout}</p>
      </div>
      {back.isError && <Failed error={back.error} />}
      {lying.data.length === 0 ? (
        <Empty title={words.binEmpty} />
      ) : (
        <ul>
          {lying.data.map((row) => (
            <BinRow key={row.id} row={row} busy={back.isPending} onBack={() => back.mutate(row)} />
          ))}
        </ul>
      )}
    </div>
  );
}
