/** Rates with their doubt, and effort and takes by depth as a table. */
import type { Schemas } from "../../api/client";
import { useReader } from "../../lib/session";
import { hoursText } from "../../lib/time";
import { bandText } from "../../lib/units";
import { words } from "./strings";

type Rate = Schemas["RateOut"];

/** A rate to two digits that mean something. */
export function rateText(value: number): string {
  return value >= 10 ? value.toFixed(0) : value.toFixed(2);
}

export function RateLine({ title, rate }: { title: string; rate: Rate }) {
  if (rate.per_hour === null || rate.low === null || rate.high === null) {
    return (
      <p>
        <b>{title}:</b> {rate.hours > 0 ? words.tooShort(rate.count, hoursText(rate.hours)) : words.noEffort}
      </p>
    );
  }
  return (
    <p>
      <b>{title}:</b>{" "}
      <span className="text-[1.35rem] font-bold">{words.perHour(rateText(rate.per_hour))}</span>{" "}
      <span className="text-soft">
        ({words.from(rate.count, hoursText(rate.hours))}).{" "}
        {words.interval(rateText(rate.low), rateText(rate.high))}.
      </span>
    </p>
  );
}

export function DepthTable({ bins }: { bins: Schemas["DepthBinOut"][] }) {
  const { settings } = useReader();
  if (bins.length === 0) return null;
  return (
    <table className="w-full max-w-lg [&_td]:pl-3 [&_th+th]:pl-3">
      <caption className="text-left font-bold">{words.byDepth}</caption>
      <thead>
        <tr className="border-b-2 border-ink text-left">
          <th scope="col">{words.depth}</th>
          <th scope="col">{words.effort}</th>
          <th scope="col">{words.takesShort}</th>
          <th scope="col">{words.rate}</th>
        </tr>
      </thead>
      <tbody>
        {bins.map((bin) => (
          <tr key={bin.top_m} className="border-b border-rule">
            <th scope="row" className="py-1 text-left font-normal">
              {bandText(settings.depth_unit, bin.top_m, bin.bottom_m)}
            </th>
            <td>{bin.hours > 0 ? hoursText(bin.hours) : words.none}</td>
            <td>{bin.takes.count}</td>
            <td>
              {bin.takes.per_hour === null || bin.takes.low === null || bin.takes.high === null
                ? "–"
                : `${rateText(bin.takes.per_hour)} (${rateText(bin.takes.low)} to ${rateText(bin.takes.high)})`}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
