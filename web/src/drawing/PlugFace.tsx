import { PartFace } from "./PartFace";

type Pin = { pin: string };
type Props = { id: string; style: string | null; keyed: boolean; pins: Pin[] };

const PITCH = 9;
const DEEP = 11;

/** A socket as one looks into it: the square pin is pin 1, the ribs on its long side are the key. */
export function PlugFace({ id, style, keyed, pins }: Props) {
  const width = Math.max(pins.length, 1) * PITCH;
  return (
    <svg
      viewBox={`-1 -1 ${width + 2} ${DEEP + 9}`}
      role="img"
      aria-label={`Socket ${id}${style ? `, ${style}` : ""}: ${pins.length} pins, pin ${pins[0]?.pin ?? "1"} is square${keyed ? ", its key on one long side" : ", no key"}`}
      className="block h-auto max-w-full"
      style={{ width: `${(width + 2) * 0.2}rem` }}
    >
      <PartFace name={id} document={{ connectors: [{ id, keyed, pins }] }} w={width} h={DEEP} named={false} />
      {pins.map((pin, index) => (
        <text
          key={pin.pin}
          x={(index + 0.5) * PITCH}
          y={DEEP + 7.4}
          fontSize={5.4}
          textAnchor="middle"
          fill="var(--text)"
          className="font-mono"
        >
          {pin.pin}
        </text>
      ))}
    </svg>
  );
}
