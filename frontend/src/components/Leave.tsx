/** Sign out; where something has not arrived, it is said first. */
import { useState } from "react";
import { useLeave, useReader } from "../lib/session";
import { load, picturesKey } from "../lib/store";
import { useOutbox } from "../offline/useOuting";
import { Button } from "../ui/controls";
import { words } from "./rareStrings";

export default function Leave({ look, className }: { look?: "quiet"; className?: string }) {
  const leave = useLeave();
  const { name } = useReader();
  const { entries } = useOutbox();
  const [asking, setAsking] = useState(false);
  const waiting = entries.length + load(picturesKey(name), 0);
  if (asking && waiting > 0)
    return (
      <span role="alert" className="flex flex-wrap items-center gap-2">
        {words.leaveAbout(waiting)}
        <Button look="danger" onClick={() => leave.mutate()}>
          {words.leaveSure}
        </Button>
        <Button onClick={() => setAsking(false)}>{words.stay}</Button>
      </span>
    );
  return (
    <Button
      look={look}
      className={className}
      onClick={() => (waiting > 0 ? setAsking(true) : leave.mutate())}
    >
      {words.leave}
    </Button>
  );
}
