/** An archive of before: what is new in it, what clashes, then all of it at once. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, need, type Schemas } from "../../api/client";
import { Failed } from "../../components/states";
import { again } from "../../lib/again";
import { Button, Choice } from "../../ui/controls";
import { FileButton } from "../../ui/FileButton";
import { Faults } from "./Faults";
import { words } from "./strings";
import { useUpload } from "./useUpload";

type Table = Schemas["TableOut"];

function Row({ table }: { table: Table }) {
  const parts = [
    [table.new, words.isNew],
    [table.same, words.same],
    [table.clash, words.clash],
  ].filter(([n]) => n);
  return (
    <li className="py-0.5">
      <b>{table.words.charAt(0).toUpperCase() + table.words.slice(1)}</b>:{" "}
      {parts.map(([n, what]) => `${n} ${what}`).join(", ")}
    </li>
  );
}

export function Archive() {
  const client = useQueryClient();
  const { share, send } = useUpload();
  const [keep, setKeep] = useState<"mine" | "archive">("mine");
  const found = useMutation({
    mutationFn: async (file: File) => {
      const upload = await send(file);
      const told = await need(
        api.GET("/api/archive/{upload_id}", { params: { path: { upload_id: upload } } }),
      );
      return { upload, told };
    },
  });
  const take = useMutation({
    mutationFn: (upload: string) =>
      need(
        api.POST("/api/archive/{upload_id}/take", {
          params: { path: { upload_id: upload } },
          body: { keep },
        }),
      ),
    onSuccess: () => {
      found.reset();
      return again(client);
    },
  });
  const told = found.data?.told;
  const tables = told?.tables.filter((one) => one.new + one.same + one.clash > 0) ?? [];
  const clashes = told ? told.settings_clash || tables.some((one) => one.clash > 0) : false;
  const some = tables.some((one) => one.new > 0) || clashes;
  return (
    <section className="space-y-2" data-testid="archive">
      <h2>{words.archive}</h2>
      <p className="max-w-prose text-soft">{words.archiveAbout}</p>
      <FileButton
        label={told ? words.other : words.pick}
        accept=".zip,application/zip"
        disabled={found.isPending || take.isPending}
        onFile={(file) => {
          take.reset();
          setKeep("mine");
          found.mutate(file);
        }}
      />
      {found.isPending && <p role="status">{share === null ? words.reading : words.sending(share)}</p>}
      {found.isError && <Failed error={found.error} />}
      {take.isError && <Failed error={take.error} />}
      {take.isSuccess && <p role="status">{words.taken(take.data.written)}</p>}
      {told && (
        <div className="space-y-2">
          {tables.length === 0 && <p>{words.nothing}</p>}
          <ul>
            {tables.map((table) => (
              <Row key={table.name} table={table} />
            ))}
          </ul>
          {told.settings_clash && <p>{words.settingsClash}</p>}
          <Faults title={words.leftOut(told.left_out)} faults={told.faults} />
          {clashes && (
            <Choice
              label={words.keep}
              required
              value={keep}
              options={[
                { value: "mine", label: words.mine },
                { value: "archive", label: words.theirs },
              ]}
              onChange={(next) => setKeep(next === "archive" ? "archive" : "mine")}
            />
          )}
          {some ? (
            <Button
              look="main"
              disabled={take.isPending}
              onClick={() => take.mutate(found.data?.upload ?? "")}
            >
              {words.take}
            </Button>
          ) : (
            tables.length > 0 && <p>{words.allHere}</p>
          )}
        </div>
      )}
    </section>
  );
}
