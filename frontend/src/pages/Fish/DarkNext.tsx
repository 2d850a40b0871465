/** The next step where the server cannot be asked; with signal it only looks ahead and keeps what it finds. */
import type { ComponentProps } from "react";
import type { Outing, Spell } from "../../offline/overlay";
import NextStrip from "./NextStrip";
import { useDark } from "./useDark";

type Props = Omit<ComponentProps<typeof NextStrip>, "advice"> & { outing: Outing; spell: Spell };

export default function DarkNext({ outing, spell, ...rest }: Props) {
  const advice = useDark(outing, spell);
  return advice ? <NextStrip advice={advice} {...rest} /> : null;
}
