import { maskOf } from "@/drawing/colours";
import { useId, type CSSProperties } from "react";
import { Drawn, type DrawnBoard } from "./Drawn";

const BARE = "#55634f";
const PRINT = { light: "#f4f1e6", dark: "#1a1917" };

/** The board as a lamp and a hand that is not quite still show it: the same positions always look the same. */
export function Photographed(props: DrawnBoard) {
  const filter = useId();
  const held = heldSo(JSON.stringify([props.board.part_number, props.positions]));
  const look = (props.board.document as { look?: { colour?: unknown } }).look?.colour;
  const print = look === "white" ? PRINT.dark : PRINT.light;
  const colours = {
    "--raised": `color-mix(in srgb, ${maskOf(look) ?? BARE} 82%, black)`,
    "--ground": "#16140f",
    "--text": print,
    "--faint": print,
    "--edge": print,
    "--original": print,
    "--replacement": print,
  } as CSSProperties;
  return (
    <figure className="relative max-w-xl overflow-hidden bg-[#24201b] p-3 desk:p-6">
      <svg aria-hidden className="absolute size-0">
        <filter id={filter}>
          <feGaussianBlur in="SourceGraphic" stdDeviation="0.55" result="soft" />
          <feTurbulence type="fractalNoise" baseFrequency="0.8" numOctaves="2" seed={held.grain} />
          <feColorMatrix values="0 0 0 0 0  0 0 0 0 0  0 0 0 0 0  0.9 0 0 0 -0.3" />
          <feComposite in2="soft" operator="in" result="grain" />
          <feMerge>
            <feMergeNode in="soft" />
            <feMergeNode in="grain" />
          </feMerge>
        </filter>
      </svg>
      <div
        style={{
          ...colours,
          filter: `url(#${filter})`,
          transform: `perspective(48rem) rotateX(${held.back}deg) rotateY(${held.aside}deg) rotate(${held.turned}deg)`,
        }}
      >
        <Drawn {...props} />
      </div>
      <div
        aria-hidden
        className="pointer-events-none absolute inset-0"
        style={{
          background: `radial-gradient(ellipse at ${held.lamp}% 18%, rgb(255 234 184 / 0.3), transparent 46%), radial-gradient(circle, transparent 52%, rgb(0 0 0 / 0.5))`,
        }}
      />
    </figure>
  );
}

/** How a picture was taken: degrees leant back, aside and turned, where the lamp is, and which grain it has. */
export function heldSo(words: string) {
  let sum = 7;
  for (const letter of words) sum = (sum * 31 + letter.charCodeAt(0)) % 99_991;
  const part = (of: number, most: number) => ((sum % of) / (of - 1)) * 2 * most - most;
  return { back: 8 + part(7, 4), aside: part(11, 9), turned: part(13, 4), lamp: 50 + part(17, 28), grain: sum % 97 };
}
