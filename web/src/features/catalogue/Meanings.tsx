import { positionWords } from "@/drawing/hanging";
import type { Element } from "@/drawing/types";

export type FunctionNode = {
  fixed?: unknown;
  from?: string;
  scale?: number;
  offset?: number;
  table?: { when: Record<string, unknown>; value: unknown }[];
};
type Props = {
  elements: Element[];
  functions: Record<string, FunctionNode>;
  titles: Record<string, string>;
  units: Record<string, string>;
};

/** What every position means, function by function. */
export function Meanings({ elements, functions, titles, units }: Props) {
  return (
    <>
      <ul className="my-3 flex flex-col gap-1">
        {elements.map((element) => (
          <li key={element.id}>
            <span className="font-mono font-semibold">{element.id}</span> {element.title || element.kind}:{" "}
            {element.factory === null ? (
              "factory setting not known"
            ) : (
              <>
                factory setting <span className="font-mono">{positionWords(element, element.factory)}</span>
              </>
            )}
            {element.locked.length > 0 && <span className="text-faint"> ({element.locked.join(", ")} stays)</span>}
          </li>
        ))}
      </ul>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Meanings">
        <table className="w-full min-w-[480px] border-t border-rule text-left">
          <thead>
            <tr className="text-sm text-faint">
              <th className="py-2 pr-3">Function</th>
              <th className="py-2">Positions and what they give</th>
            </tr>
          </thead>
          <tbody>
            {Object.entries(functions).map(([id, node]) => (
              <tr key={id} className="border-t border-rule align-top">
                <th scope="row" className="py-2 pr-3 font-semibold">
                  {titles[id] ?? id}
                </th>
                <td className="py-2">
                  {meaning(node, units[id] ?? "").map((line) => (
                    <div key={line}>{line}</div>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

function meaning(node: FunctionNode, unit: string): string[] {
  if (node.table)
    return node.table.map((row) => {
      const when = Object.entries(row.when).map(([point, value]) => `${point} ${String(value)}`);
      return `${when.join(", ") || "always"}: ${words(row.value, unit)}`;
    });
  if (node.from !== undefined) {
    const scale = node.scale !== undefined && node.scale !== 1 ? ` × ${node.scale}` : "";
    const offset = node.offset ? ` + ${node.offset}` : "";
    return [`as ${node.from} says${scale}${offset}`];
  }
  return [`always ${words(node.fixed, unit)}`];
}

function words(value: unknown, unit: string): string {
  if (typeof value === "boolean") return value ? "yes" : "no";
  return typeof value === "number" && unit ? `${value} ${unit}` : String(value);
}
