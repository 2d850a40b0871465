/** The box beside the day: what fits the food about, the gaps, and what to tie for the plan. */
import { useState } from "react";
import { Failed, Loading } from "../../components/states";
import { useReading } from "../../lib/reading";
import { useReader } from "../../lib/session";
import { Button, Choice } from "../../ui/controls";
import { words } from "./strings";
import { useBoxToday, useTieList } from "./useBox";

export function Today() {
  const { body, mending } = useReading("body", "mending");
  const { say } = useReader();
  const asked = useBoxToday(body, !mending);
  return (
    <section aria-labelledby="fits">
      <h2 id="fits">{words.today}</h2>
      <p className="text-[0.92rem] text-soft">{words.todayAbout}</p>
      {asked.isError && <Failed error={asked.error} again={() => void asked.refetch()} />}
      {asked.isPending && <Loading what={words.working} />}
      <ul className="corded mt-1 space-y-1">
        {asked.data?.rows.map((row) => (
          <li key={row.prey} className="knot">
            <b>{say(row.name)}</b> {Math.round(100 * row.share)} %:{" "}
            {row.gap ? (
              <span className="text-warm">
                <b>{words.gap}</b>.{" "}
                {row.starters.length > 0 && words.wouldDo(row.starters.map(say).join(", "))}
              </span>
            ) : (
              <>
                {row.flies
                  .slice(0, 3)
                  .map((fly) => say(fly.name))
                  .join(", ")}
                {row.flies.length > 3 && ` ${words.more(row.flies.length - 3)}`}
              </>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

export function TieList() {
  const { body, mending } = useReading("body", "mending");
  const { say } = useReader();
  const [copies, setCopies] = useState("3");
  const asked = useTieList(body, Number(copies), !mending);
  const list = asked.data;
  return (
    <section aria-labelledby="ties" className="space-y-2">
      <h2 id="ties">{words.tie}</h2>
      <Choice
        label={words.copies}
        required
        value={copies}
        options={["2", "3", "4", "6"].map((n) => ({ value: n, label: n }))}
        onChange={(n) => n && setCopies(n)}
      />
      {asked.isError && <Failed error={asked.error} again={() => void asked.refetch()} />}
      {asked.isPending && <Loading what={words.working} />}
      {list && list.ties.length === 0 && <p className="text-soft">{words.noTies}</p>}
      {list && list.ties.length > 0 && (
        <>
          <ul className="corded space-y-1">
            {list.ties.map((tie) => (
              <li key={`${tie.id}${tie.hook}`} className="knot">
                {say(tie.name)}, {words.hooks(String(tie.hook))}: {words.have(tie.have)},{" "}
                <b>{tie.to_tie > 0 ? words.tieNow(tie.to_tie) : words.enough}</b>
              </li>
            ))}
          </ul>
          {list.materials.length > 0 && (
            <>
              <h3>{words.materials}</h3>
              <ul className="columns-1 gap-8 min-[34rem]:columns-2">
                {list.materials.map((m) => (
                  <li key={`${m.part}${m.words}`}>
                    {m.counted ? `${m.flies} × ${m.words}` : `${m.words}, ${words.forFlies(m.flies)}`}
                  </li>
                ))}
              </ul>
            </>
          )}
          <Button className="no-print" onClick={() => window.print()}>
            {words.print}
          </Button>
        </>
      )}
    </section>
  );
}
