/** Where the boat's instruments are: address, port, how deep the transducer hangs. */
import { useState } from "react";
import { ApiError, type Problem } from "../../api/client";
import { Failed } from "../../components/states";
import { type FeedState, useFeedActions } from "../../lib/feed";
import { useReader } from "../../lib/session";
import { load, save } from "../../lib/store";
import { depthFrom, typedNumber } from "../../lib/units";
import { Button, Field, NumberBox, TextBox } from "../../ui/controls";
import { words } from "./strings";

interface Address {
  host: string;
  port: string;
  transducer: string;
}

export function Connect({ feed }: { feed: FeedState }) {
  const { settings } = useReader();
  const [to, setTo] = useState<Address>(() =>
    load("feed", { host: "127.0.0.1", port: "10110", transducer: "" }),
  );
  const [wrong, setWrong] = useState<Problem | null>(null);
  const { connect, disconnect } = useFeedActions();
  const problems = wrong ? [wrong] : connect.error instanceof ApiError ? connect.error.problems : [];
  const at = (path: string) => problems.find((p) => p.path === path);
  const set = (part: Partial<Address>) => {
    const next = { ...to, ...part };
    setTo(next);
    save("feed", next);
  };
  const off = feed.state === "off" || feed.state === "stopped";
  const go = () => {
    const port = Number(to.port);
    if (!Number.isInteger(port) || port < 1 || port > 65535)
      return setWrong({ code: "form", path: "port", message: words.notNumber, accepted: "", hint: "" });
    setWrong(null);
    const depth = typedNumber(to.transducer);
    connect.mutate({
      host: to.host.trim(),
      port,
      transducer_m: depth === null || Number.isNaN(depth) ? 0 : depthFrom(settings.depth_unit, depth),
    });
  };
  if (!off)
    return (
      <Button onClick={() => disconnect.mutate()} disabled={disconnect.isPending}>
        {words.disconnect}
      </Button>
    );
  return (
    <div className="space-y-2">
      <div className="flex flex-wrap items-start gap-3">
        <Field label={words.host} problem={at("host")} className="w-52">
          {(p) => <TextBox {...p} value={to.host} onChange={(e) => set({ host: e.target.value })} />}
        </Field>
        <Field label={words.port} problem={at("port")} className="w-28">
          {(p) => (
            <TextBox
              {...p}
              inputMode="numeric"
              value={to.port}
              onChange={(e) => set({ port: e.target.value })}
            />
          )}
        </Field>
        <Field
          label={words.transducer}
          hint={words.transducerHint}
          problem={at("transducer_m")}
          className="w-64"
        >
          {(p) => (
            <NumberBox
              {...p}
              unit={settings.depth_unit}
              className="w-32"
              value={to.transducer}
              onChange={(e) => set({ transducer: e.target.value })}
            />
          )}
        </Field>
      </div>
      <Button look="main" onClick={go} disabled={connect.isPending}>
        {words.connect}
      </Button>
      {connect.isError && problems.length === 0 && <Failed error={connect.error} again={go} />}
      <p className="text-[0.92rem] text-soft">{words.tryIt}</p>
    </div>
  );
}
