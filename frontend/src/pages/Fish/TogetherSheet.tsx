/** Share an outing with another angler by six letters; end it, leave it, take the other out. */
import { useState } from "react";
import { Failed } from "../../components/states";
import { clockText } from "../../lib/time";
import type { Outing } from "../../offline/overlay";
import { Button } from "../../ui/controls";
import { Sheet } from "../../ui/Sheet";
import { words } from "./strings";
import { BesideLine } from "./Together";
import { type Shared, useSharing, useTogether } from "./useTogether";

function Code({ code }: { code: string }) {
  const [copied, setCopied] = useState(false);
  const link = `${window.location.origin}/fish/join/${code}`;
  // Only where the address is safe does the browser lend its clipboard; the link can be read too.
  const copy = () => void navigator.clipboard.writeText(link).then(() => setCopied(true));
  return (
    <div>
      <p className="text-soft">{words.codeIs}</p>
      <p className="text-[2.6rem] leading-tight font-bold tracking-[0.18em]" data-testid="code">
        {code}
      </p>
      <p>{words.codeTell}</p>
      <p className="my-1 break-all text-soft">
        {words.link}: <span className="select-all">{link}</span>
      </p>
      {"clipboard" in navigator && (
        <Button className="min-h-12" onClick={copy}>
          {copied ? words.copied : words.copyLink}
        </Button>
      )}
    </div>
  );
}

function Open({ shared, outing }: { shared: Shared; outing: Outing }) {
  const { takeOut, end } = useSharing(outing.id);
  const wrong = takeOut.error ?? end.error;
  return (
    <div className="space-y-3">
      {shared.code && !shared.name && <Code code={shared.code} />}
      {shared.name ? (
        <>
          <h3 className="text-base">{words.beside(shared.name)}</h3>
          <ul className="space-y-1">
            {shared.spells.map((spell) => (
              <li key={spell.started_at}>
                {clockText(spell.started_at, outing.time_zone)} <BesideLine spell={spell} />
              </li>
            ))}
            {shared.spells.length === 0 && <li>{words.notFishing}</li>}
          </ul>
        </>
      ) : (
        <p>{words.nobodyYet}</p>
      )}
      <p className="text-soft">{words.endAbout}</p>
      {shared.own && shared.name && (
        <Button className="min-h-12 w-full" disabled={takeOut.isPending} onClick={() => takeOut.mutate()}>
          {words.takeOut(shared.name)}
        </Button>
      )}
      <Button look="danger" className="min-h-12 w-full" disabled={end.isPending} onClick={() => end.mutate()}>
        {shared.own ? words.stopSharing : words.leave(shared.name)}
      </Button>
      {wrong && <Failed error={wrong} />}
    </div>
  );
}

export default function TogetherSheet({ outing, onClose }: { outing: Outing; onClose: () => void }) {
  const found = useTogether(outing.id);
  const { share } = useSharing(outing.id);
  const shared = found.data;
  return (
    <Sheet onClose={onClose} title={words.shareTitle}>
      {shared?.open ? (
        <Open shared={shared} outing={outing} />
      ) : (
        <div className="space-y-3">
          <p>{words.shareAbout}</p>
          {shared?.ended_at && (
            <p className="text-soft">
              {words.sharedUntil(shared.name ?? "", clockText(shared.ended_at, outing.time_zone))}
            </p>
          )}
          <Button
            look="main"
            className="min-h-14 w-full"
            disabled={share.isPending}
            onClick={() => share.mutate()}
          >
            {words.share}
          </Button>
          {(share.error ?? found.error) && <Failed error={share.error ?? found.error} />}
        </div>
      )}
    </Sheet>
  );
}
