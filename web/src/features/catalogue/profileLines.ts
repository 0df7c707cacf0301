import type { Schemas } from "@/api/client";

/** What a profile holds besides settings, meanings and behaviour, in lines, so that somebody can proofread all of it. */

type Node = Record<string, unknown>;
export type Section = { title: string; lines: string[] };
export type Table = { title: string; headings: string[]; rows: string[][] };

const list = (value: unknown) => (Array.isArray(value) ? (value as Node[]) : []);
const text = (value: unknown): string =>
  value === null || value === undefined
    ? ""
    : typeof value === "boolean"
      ? value
        ? "yes"
        : "no"
      : Array.isArray(value)
        ? value.map(text).join(", ")
        : typeof value === "object"
          ? spanWords(value as Node)
          : String(value as string | number);
const named = (titles: Record<string, string>, id: unknown) => titles[text(id)] ?? text(id);

/** A range, or names with their values: "2001 to 2005", "model DK1, fuel gas". */
export function spanWords(node: Node): string {
  if ("from" in node || "to" in node) {
    if (node.from === undefined) return `to ${text(node.to)}`;
    return node.to === undefined ? `from ${text(node.from)}` : `${text(node.from)} to ${text(node.to)}`;
  }
  return Object.entries(node)
    .map(([name, value]) => `${name} ${text(value)}`)
    .join(", ");
}

const joined = (...parts: (string | false)[]) => parts.filter(Boolean).join(", ");
const between = (value: unknown, unit: string) =>
  Array.isArray(value) ? `${text(value[0])} to ${text(value[1])} ${unit}` : "";

/** The sections of a profile that are said at all. */
export function sectionsOf(document: Node, titles: Record<string, string>): Section[] {
  const supply = (document.supply ?? {}) as Node;
  const around = (document.surroundings ?? {}) as Node;
  const energy = document.stored_energy as Node | undefined;
  const made = document.made as Node | undefined;
  const places = ((document.standing ?? {}) as { layout?: { worth?: string } }).layout;
  // what was drawn for want of measures is no size
  const size = places?.worth === "drawn" ? undefined : (document.size_mm as number[] | undefined);
  const found: Section[] = [
    {
      title: "Supply, size and surroundings",
      lines: [
        joined(
          between(supply.volts, "V"),
          supply.hertz !== undefined && `${text(supply.hertz)} Hz`,
          supply.phases !== undefined && `phases: ${text(supply.phases)}`,
        ),
        joined(
          !!size && `${size.join(" by ")} mm`,
          document.height_mm !== undefined && `${text(document.height_mm)} mm high`,
          list(document.holes).length > 0 && `${list(document.holes).length} holes`,
        ),
        joined(between(around.temperature_c, "°C"), between(around.humidity_percent, "% humidity")),
        made ? `Made ${spanWords(made)}` : "",
      ],
    },
    {
      title: "Stored energy",
      lines: energy
        ? [
            joined(
              energy.capacitance_uf !== undefined && `${text(energy.capacitance_uf)} µF`,
              energy.volts !== undefined && `${text(energy.volts)} V`,
              energy.bleed_kohm !== undefined && `bleeds through ${text(energy.bleed_kohm)} kΩ`,
              energy.wait_s !== undefined && `wait ${text(energy.wait_s)} s`,
            ),
          ]
        : [],
    },
    {
      title: "Contacts",
      lines: list(document.relays).map((each) =>
        joined(
          `${text(each.id)}: ${named(titles, each.signal)}`,
          each.amps !== undefined &&
            Object.entries(each.amps as Node)
              .map(([kind, amps]) => `${text(amps)} A ${kind}`)
              .join(", "),
          each.rating !== undefined && text(each.rating),
        ),
      ),
    },
    {
      title: "Made for",
      lines: list(document.accepts).map(
        (each) =>
          `${named(titles, each.fact)}: ${each.one_of ? text(each.one_of) : between(each.between, text(each.unit))}`,
      ),
    },
    {
      title: "Test switches: what acts by itself",
      lines: list(document.acts).map(
        (each) =>
          `${text(each.point)} ${text(each.when)}: ${text(each.what)}; ends ${text(each.ends) || "when it is set back"}`,
      ),
    },
    { title: "Left behind at times", lines: list(document.temporary).map((each) => text(each.what)) },
    {
      title: "What moves across",
      lines: list(document.moves).map((each) => joined(`${text(each.id)}: ${text(each.what)}`, text(each.caution))),
    },
    {
      title: "What a new board will not know",
      lines: list(document.remembers).map((each) =>
        joined(
          text(each.what),
          !!each.read && `read: ${text(each.read)}`,
          !!each.enter && `enter: ${text(each.enter)}`,
        ),
      ),
    },
    {
      title: "Kit and companions",
      lines: [
        ...list(document.kit).map((each) =>
          joined(
            `${text(each.count ?? 1)} × ${text(each.item)}`,
            !!each.needed_if && `where ${spanWords(each.needed_if as Node)}`,
          ),
        ),
        ...list(document.companions).map((each) => joined(`change along with it: ${text(each.item)}`, text(each.why))),
      ],
    },
    {
      title: "Panels",
      lines: list(document.panels).map((each) =>
        joined(
          `${text(each.title)} (${text(each.kind)})`,
          `keys ${Object.entries((each.keys ?? {}) as Node)
            .map(([does, key]) => `${does}: ${text(key)}`)
            .join(", ")}`,
          !!(each.items ?? each.element) && `sets ${text(each.items ?? each.element)}`,
        ),
      ),
    },
    { title: "Learning", lines: learningLines(document.learning as Node | undefined, titles) },
    { title: "Service port", lines: portLines(document.service_port as Node | undefined) },
  ];
  return found
    .map(({ title, lines }) => ({ title, lines: lines.filter(Boolean) }))
    .filter(({ lines }) => lines.length > 0);
}

function learningLines(node: Node | undefined, titles: Record<string, string>): string[] {
  if (!node) return [];
  return [
    text(node.told_by),
    ...Object.entries((node.knows ?? {}) as Record<string, Node>).map(
      ([board, sets]) => `told ${board}: ${spanWords(sets)}`,
    ),
    Array.isArray(node.finds) ? `finds ${node.finds.map((each) => named(titles, each)).join(", ")}` : "",
    node.needs !== undefined ? `needs: ${text(node.needs)}` : "",
  ];
}

function portLines(node: Node | undefined): string[] {
  if (!node) return [];
  return [
    `${text(node.kind)}, unit ${text(node.unit)}`,
    ...list(node.registers).map(
      (each) => `${text(each.at)}: ${text(each.gives)}${each.write ? ", can be written" : ""}`,
    ),
  ];
}

/** Every plug with its pins. */
export function plugTables(document: Node, titles: Record<string, string>): Table[] {
  return list(document.connectors).map((plug) => ({
    title: joined(text(plug.id), text(plug.style), plug.keyed === true ? "keyed" : plug.keyed === false && "not keyed"),
    headings: ["Pin", "Printed", "Signal"],
    rows: list(plug.pins).map((pin) => [
      text(pin.pin),
      text(pin.mark),
      joined(named(titles, pin.signal), !!pin.without_device && `without the device: ${text(pin.without_device)}`),
    ]),
  }));
}

/** Every chart as its leaflet prints it. */
export function chartTables(charts: Schemas["ChartShown"][]): Table[] {
  return charts.map(({ id, title, columns, rows }) => ({
    title: title || id,
    headings: columns.map((each) => each.heading),
    rows,
  }));
}
