import { wireColours } from "./colours";

type Props = { d: string; colour: string; width: number; dashes?: string; plain?: string };

/** A length of wire along a path: its one or two colours in a dark edge, so that a white one shows on white. */
export function Lead({ d, colour, width, dashes, plain = "var(--both)" }: Props) {
  const [one = plain, two] = wireColours(colour);
  return (
    <g fill="none" strokeDasharray={dashes}>
      <path d={d} stroke="var(--both)" strokeWidth={width + 1.8} />
      <path d={d} stroke={one} strokeWidth={width} />
      {two && <path d={d} stroke={two} strokeWidth={width} strokeDasharray="7 7" />}
    </g>
  );
}

/** A piece of a wire beside its tag; nothing where its colour is not known. */
export function WireSwatch({ colour }: { colour: string }) {
  if (wireColours(colour).length === 0) return null;
  return (
    <svg viewBox="0 0 34 9" className="inline-block h-2.5 w-9" aria-hidden="true">
      <Lead d="M1 4.5h32" colour={colour} width={5} />
    </svg>
  );
}
