/** What stands below the buttons of the day: a photo, and what the rig will stand. */
import type { Schemas } from "../../api/client";
import type { Outing, Spell } from "../../offline/overlay";
import { PhotoButton } from "../../photos/PhotoButton";
import RigNote from "./RigNote";

interface Props {
  outing: Outing;
  spell: Spell;
  setUp: Schemas["SetUpOut"] | undefined;
}

export default function Below({ outing, spell, setUp }: Props) {
  return (
    <>
      <PhotoButton outing={outing} shows="water" depth={null} className="mb-2 min-h-12 w-full" />
      <RigNote spell={spell} setUp={setUp} />
    </>
  );
}
