/** The countdown table of the rig, and how deep it trolls. */
import { useReader } from "../../lib/session";
import { bandText, depthText, FOOT_M } from "../../lib/units";
import { Button } from "../../ui/controls";
import { useUnits } from "./Amount";
import { Part } from "./RigForm";
import { deepest, type RigDoc } from "./rig";
import { words } from "./strings";
import { useTable } from "./useThread";

function depthsFor(rig: RigDoc, unit: "m" | "ft"): number[] {
  const step = unit === "m" ? (deepest(rig) > 8 ? 1 : 0.5) : (deepest(rig) > 8 ? 4 : 2) * FOOT_M;
  const found = [];
  for (let d = step; d <= deepest(rig) + 1e-6 && found.length < 24; d += step) found.push(d);
  return found.length > 0 ? found : [deepest(rig)];
}

export function Counts({ rig }: { rig: RigDoc }) {
  const { settings } = useReader();
  const unit = settings.depth_unit;
  const units = useUnits();
  const ask = useTable();
  const s = (v: number | null) => (v === null ? "–" : `${Math.round(v)}`);
  if (rig.float) return null;
  return (
    <Part title={words.counts}>
      <p className="text-soft">{words.countsAbout}</p>
      <Button
        onClick={() => ask.mutate({ rig, depths_m: depthsFor(rig, unit), trolling: true })}
        disabled={ask.isPending}
      >
        {ask.isPending ? words.stale : words.countsAsk}
      </Button>
      {ask.data && (
        <>
          <table className="w-full max-w-xl" data-testid="counts">
            <thead>
              <tr className="border-b-2 border-ink text-left">
                <th>{words.toDepth}</th>
                <th className="text-right">{words.seconds}</th>
                <th className="text-right">{words.soon}</th>
                <th className="pl-4">{words.thenRuns}</th>
              </tr>
            </thead>
            <tbody>
              {ask.data.rows.map((row) => (
                <tr key={row.depth_m} className="border-b border-rule">
                  <th scope="row" className="py-1 text-left">
                    {depthText(unit, row.depth_m)}
                  </th>
                  <td className="text-right font-bold">
                    {row.count_s === null ? words.never : `${s(row.count_s)} s`}
                  </td>
                  <td className="text-right text-soft">
                    {row.count_s !== null && `${s(row.soonest_s)} to ${s(row.latest_s)} s`}
                  </td>
                  <td className="pl-4">
                    {row.runs_min_m !== null &&
                      row.runs_max_m !== null &&
                      bandText(unit, row.runs_min_m, row.runs_max_m)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {ask.data.trolling && (
            <>
              <h4 className="font-bold">{words.troll}</h4>
              <p className="text-soft">{words.trollAbout}</p>
              <table className="w-full max-w-xl">
                <thead>
                  <tr className="border-b-2 border-ink">
                    <th />
                    {ask.data.trolling.out_m.map((out) => (
                      <th key={out} className="text-right">
                        {depthText(unit, out, unit === "m" ? 0 : 1)}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {ask.data.trolling.speeds_m_s.map((speed, i) => (
                    <tr key={speed} className="border-b border-rule">
                      <th scope="row" className="py-1 text-left">
                        {units.pace.to(speed).toFixed(0)} {units.pace.label}
                      </th>
                      {ask.data.trolling?.depth_m[i]?.map((depth, k) => (
                        <td key={ask.data.trolling?.out_m[k]} className="text-right">
                          {depth === null ? "–" : depthText(unit, depth)}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
        </>
      )}
    </Part>
  );
}
