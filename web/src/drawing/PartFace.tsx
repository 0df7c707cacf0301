import type { BoardDocument } from "./types";

type Props = { name: string; document: BoardDocument; w: number; h: number; named?: boolean };

/** What sits on a board and is not set: sockets with their pins and key, relays, fuse, lamp, button, chips. */
export function PartFace({ name, document, w, h, named = true }: Props) {
  const plug = document.connectors?.find((each) => each.id === name);
  if (plug) return <Socket name={name} pins={plug.pins.length} keyed={plug.keyed === true} w={w} h={h} named={named} />;
  if (name === "lamp" || name === "button") return <Round name={name} look={document.look} w={w} h={h} />;
  const relay = /^(RL|K)\d/.test(name);
  return (
    <g>
      <rect width={w} height={h} fill="var(--ground)" stroke="var(--edge)" strokeWidth={0.8} rx={relay ? 1 : 0} />
      {relay && <path d={`M2.5 2.5h${w - 5}`} stroke="var(--edge)" strokeWidth={0.8} />}
      {name === "fuse" && (
        <path
          d={`M0 ${h / 2}h${w * 0.2}m${w * 0.6} 0h${w * 0.2}M${w * 0.2} 1.2h${w * 0.6}v${h - 2.4}h${-w * 0.6}z`}
          fill="none"
          stroke="var(--edge)"
          strokeWidth={0.7}
        />
      )}
      {named && (
        <Name x={name === "fuse" ? w / 2 : 1.5} y={name === "fuse" ? h + 4.6 : h - 1.8} middle={name === "fuse"}>
          {name}
        </Name>
      )}
    </g>
  );
}

type SocketProps = { name: string; pins: number; keyed: boolean; w: number; h: number; named: boolean };

/** A socket: its first pin is square and numbered, and the ribs of its key stand out from one long side, off the middle. */
function Socket({ name, pins, keyed, w, h, named }: SocketProps) {
  const upright = h > w;
  const long = upright ? h : w;
  const deep = upright ? w : h;
  const pitch = long / Math.max(pins, 1);
  const pin = Math.min(pitch * 0.42, deep * 0.34, 2.6);
  const at = (along: number, across: number): [number, number] => (upright ? [across, along] : [along, across]);
  const ribs = keyed && pins > 1 ? [0.22, 0.36] : [];
  const [nameX, nameY] = upright ? [0, h + 4.8] : [0, h + 4.8];
  return (
    <g>
      {ribs.map((share) => {
        const [x, y] = at(long * share, deep);
        return <rect key={share} x={x} y={y} {...sized(at(long * 0.07, 1.4))} fill="var(--edge)" />;
      })}
      <rect width={w} height={h} fill="var(--raised)" stroke="var(--edge)" strokeWidth={0.9} />
      {Array.from({ length: pins }, (_, index) => {
        const [x, y] = at((index + 0.5) * pitch, deep / 2);
        return index === 0 ? (
          <rect key={index} x={x - pin / 2} y={y - pin / 2} width={pin} height={pin} fill="var(--text)" />
        ) : (
          <circle key={index} cx={x} cy={y} r={pin / 2} fill="var(--edge)" />
        );
      })}
      {named && (
        <Name x={nameX} y={nameY} strong>
          {name}
        </Name>
      )}
    </g>
  );
}

function sized([width, height]: [number, number]) {
  return { width, height };
}

const COLOURED: Record<string, string> = { red: "#c02626", black: "#33302c", green: "#2f8a45" };

function Round({ name, look, w, h }: { name: string; look: BoardDocument["look"]; w: number; h: number }) {
  const word = /^[a-z]+/i.exec(String(look?.[name] ?? ""))?.[0]?.toLowerCase() ?? "";
  return (
    <g stroke="var(--edge)" strokeWidth={0.8}>
      <circle cx={w / 2} cy={h / 2} r={w / 2} fill="var(--raised)" />
      <circle
        cx={w / 2}
        cy={h / 2}
        r={w * 0.3}
        fill={COLOURED[word] ?? "var(--ground)"}
        strokeWidth={name === "button" ? 0.8 : 0}
      />
    </g>
  );
}

type NameProps = { x: number; y: number; children: string; strong?: boolean; middle?: boolean };

function Name({ x, y, children, strong = false, middle = false }: NameProps) {
  return (
    <text
      x={x}
      y={y}
      fontSize={strong ? 5 : 4.2}
      textAnchor={middle ? "middle" : "start"}
      fill={strong ? "var(--text)" : "var(--faint)"}
      className="font-mono"
    >
      {children}
    </text>
  );
}
