import { useEffect, useState } from "react";
import type { Machine, State } from "./machine";

/** A state's box: its title and what is on in it, whole, in as many lines as that takes. */
export type Box = { title: string; lines: string[]; width: number; height: number };
type Point = { x: number; y: number };
type Drawn = {
  width: number;
  height: number;
  spots: Record<string, Point>;
  arrows: { from: string; to: string; path: string; label: Point }[];
};

export const LINE = 14;
const TITLE_CHAR = 7.6;
const LINE_CHAR = 6.2;
const WIDEST = 26;
const MARGIN = 16;

export function boxOf(name: string, state: State, titles: Record<string, string>): Box {
  const title = state.title ?? name;
  const on = (state.on ?? []).map((out) => {
    const output = typeof out === "string" ? out : out.output;
    return (titles[output] ?? output) + (typeof out === "string" ? "" : ", at times");
  });
  const lines = wrapped(on.length ? on : ["nothing on"]);
  const width = Math.max(96, title.length * TITLE_CHAR + 18, ...lines.map((line) => line.length * LINE_CHAR + 18));
  return { title, lines, width, height: 28 + lines.length * LINE };
}

function wrapped(names: string[]): string[] {
  const lines: string[] = [];
  for (const name of names) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + name.length + 2 <= WIDEST) lines[lines.length - 1] = `${last}, ${name}`;
    else lines.push(name);
  }
  return lines;
}

/** Where boxes and arrows go; nothing until the layout library is there, which is loaded with the first diagram. */
export function useLayout(machine: Machine, boxes: Record<string, Box>): Drawn | null {
  const [drawn, setDrawn] = useState<Drawn | null>(null);
  useEffect(() => {
    let gone = false;
    void layOut(machine, boxes).then((found) => {
      if (!gone) setDrawn(found);
    });
    return () => {
      gone = true;
    };
  }, [machine, boxes]);
  return drawn;
}

/** Boxes in layers by the arrows between them, arrows bent round what is in their way. */
export async function layOut(machine: Machine, boxes: Record<string, Box>): Promise<Drawn> {
  const { Graph, layout } = await import("@dagrejs/dagre");
  const graph = new Graph();
  graph.setGraph({ rankdir: "TB", nodesep: 36, ranksep: 46, edgesep: 18, marginx: MARGIN, marginy: MARGIN });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const [name, box] of Object.entries(boxes)) graph.setNode(name, { width: box.width, height: box.height });
  for (const [name, state] of Object.entries(machine.states))
    for (const to of new Set((state.go ?? []).map((go) => go.to)))
      if (boxes[to]) graph.setEdge(name, to, { width: 20, height: 20, labelpos: "c" });
  layout(graph);
  const spots = Object.fromEntries(
    Object.entries(boxes).map(([name, box]) => {
      const node = graph.node(name);
      return [name, { x: node.x - box.width / 2, y: node.y - box.height / 2 }];
    }),
  );
  const arrows = graph.edges().map(({ v, w }) => {
    const edge = graph.edge(v, w) as { points: Point[]; x?: number; y?: number };
    const middle = edge.points[Math.floor(edge.points.length / 2)] ?? { x: 0, y: 0 };
    return { from: v, to: w, path: smooth(edge.points), label: { x: edge.x ?? middle.x, y: edge.y ?? middle.y } };
  });
  const { width = 0, height = 0 } = graph.graph();
  return { width, height, spots, arrows };
}

/** A line through points, rounded where it bends. */
function smooth(points: Point[]): string {
  const [first, ...rest] = points;
  if (!first) return "";
  const parts = rest.map((point, index) => {
    const next = rest[index + 1];
    if (!next) return `L${point.x} ${point.y}`;
    return `Q${point.x} ${point.y} ${(point.x + next.x) / 2} ${(point.y + next.y) / 2}`;
  });
  return `M${first.x} ${first.y}${parts.join("")}`;
}
