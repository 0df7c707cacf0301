import { BankGlyph, bankSize } from "./BankGlyph";
import { asSeen, hangingWords, inGroups } from "./hanging";
import { places, type Element, type Position, type Side } from "./types";

type Props = { element: Element; value: Position | undefined; side: Side };

/** How large a tenth of a slot is drawn, so that every bank has slots of one size. */
const REM = 0.17;

/** A bank to be looked at or copied: drawn as it hangs, its digits in the same order, and how to look at it in words. */
export function HungBank({ element, value, side }: Props) {
  const marks = places(element, value);
  const [width, height] = bankSize(marks.length, element.hanging, true);
  const digits = asSeen(element, marks.join(""));
  return (
    <div>
      <svg
        viewBox={`-1 -1 ${width + 2} ${height + 2}`}
        role="img"
        aria-label={`${element.id}, ${hangingWords(element.hanging, marks.length)}: ${digits}`}
        className="block"
        style={{ width: `${width * REM}rem`, maxWidth: "100%" }}
      >
        <BankGlyph
          marks={marks}
          hanging={element.hanging}
          side={side}
          numbers
          locked={element.points.map((point) => element.locked.includes(point))}
        />
      </svg>
      <p className="text-sm">
        <span
          className={`font-mono text-xl tracking-wider ${side === "original" ? "text-original" : "text-replacement"}`}
        >
          {inGroups(digits)}
        </span>{" "}
        {hangingWords(element.hanging, marks.length)}
      </p>
    </div>
  );
}
