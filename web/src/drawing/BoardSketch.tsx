import { BoardFrame, sizeOf } from "./BoardFrame";
import { PartFace } from "./PartFace";
import type { BoardDocument, Placed } from "./types";

/** A board as it is seen without reading anything: its colour, plugs, parts and holes, where its profile has them. */
export function BoardSketch({ name, sketch }: { name: string; sketch: BoardDocument }) {
  const [width, height] = sizeOf(sketch);
  const layout = sketch.layout?.length ? sketch.layout : alongTheEdge(sketch, width, height);
  const colour = sketch.look?.colour;
  return (
    <BoardFrame
      document={sketch}
      label={`${name}, drawn from its profile: ${colour ? `${String(colour)}, ` : ""}${width} by ${height} mm`}
      ink="var(--edge)"
      mask={85}
      className="block h-auto w-full"
    >
      {layout.map((placed) => {
        const [w, h] = placed.size ?? [8, 8];
        const turn = placed.turn ? `rotate(${-placed.turn} ${w / 2} ${h / 2})` : "";
        return (
          <g key={placed.ref} transform={`translate(${placed.at[0]} ${height - placed.at[1] - h}) ${turn}`}>
            <PartFace name={placed.ref} document={sketch} w={w} h={h} named={false} />
          </g>
        );
      })}
    </BoardFrame>
  );
}

/** The plugs along the upper edge, from the left, where nobody said where they are; one without room begins again. */
function alongTheEdge(sketch: BoardDocument, width: number, height: number): Placed[] {
  return (sketch.connectors ?? []).reduce<Placed[]>((placed, plug) => {
    const long = Math.min(8 + 6 * plug.pins.length, width - 16);
    const before = placed[placed.length - 1];
    const next = before ? before.at[0] + (before.size?.[0] ?? 0) + 6 : 10;
    return [...placed, { ref: plug.id, at: [next + long > width - 6 ? 10 : next, height - 18], size: [long, 10] }];
  }, []);
}
