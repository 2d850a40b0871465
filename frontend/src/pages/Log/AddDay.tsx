/** A day fished without the phone, entered afterwards: where and when; its stretches are added on its own page. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useLocation } from "wouter";
import { answered } from "../../lib/again";
import { useWater, type Water } from "../../lib/waters";
import { bareOuting } from "../../offline/dark";
import { keepAnswer } from "../../offline/persist";
import { outingAsked, useOutbox } from "../../offline/useOuting";
import { Button, Field, Select } from "../../ui/controls";
import { fault } from "../../ui/measures";
import { Sheet } from "../../ui/Sheet";
import { Times, useTimeBox } from "./boxes";
import { words } from "./strings";

const DAY_MS = 86_400_000;

function Form({ water, onClose }: { water: Water; onClose: () => void }) {
  const zone = water.time_zone ?? "UTC";
  const client = useQueryClient();
  const [, go] = useLocation();
  const yesterday = new Date(Date.now() - DAY_MS);
  const at = (hour: number) => new Date(yesterday.setHours(hour, 0, 0, 0)).toISOString();
  const [start] = useState(() => [at(9), at(13)] as const);
  const from = useTimeBox(start[0], zone, "started_at");
  const to = useTimeBox(start[1], zone, "ended_at");
  const order = to.iso !== null && from.iso !== null && new Date(to.iso) < new Date(from.iso);
  const { box } = useOutbox();
  const add = useMutation({
    // Made here, with signal or without, and sent as all else is.
    networkMode: "always",
    mutationFn: async () => {
      const id = crypto.randomUUID();
      const body = { water_id: water.id, started_at: from.iso ?? "", ended_at: to.iso, note: "" };
      answered(client, outingAsked(id).queryKey, bareOuting(water, id, body.started_at, body.ended_at));
      keepAnswer(client, outingAsked(id).queryKey);
      await box.add(words.addDay, { kind: "outing", outing: id, id, body });
      return id;
    },
    onSuccess: (id) => go(`/log/${id}`),
  });
  return (
    <div className="space-y-4">
      <Times
        from={from}
        to={to}
        problem={order ? fault("ended_at", words.order, "a later time") : undefined}
      />
      <div className="flex gap-2">
        <Button
          look="main"
          disabled={order || from.bad || to.bad || add.isPending}
          onClick={() => add.mutate()}
        >
          {words.addIt}
        </Button>
        <Button onClick={onClose}>{words.cancel}</Button>
      </div>
    </div>
  );
}

export default function AddDay({ onClose }: { onClose: () => void }) {
  const { water, list } = useWater();
  const [id, setId] = useState(water?.id ?? "");
  const chosen = list.find((one) => one.id === id) ?? water;
  return (
    <Sheet onClose={onClose} title={words.addDay} about={words.addDayAbout}>
      <div className="space-y-4">
        {list.length > 1 && (
          <Field label={words.whereFished}>
            {(p) => (
              <Select {...p} value={id} onChange={(e) => setId(e.target.value)}>
                {list.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
              </Select>
            )}
          </Field>
        )}
        {chosen && <Form key={chosen.id} water={chosen} onClose={onClose} />}
      </div>
    </Sheet>
  );
}
