import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";

type Props = {
  label: string;
  names: Schemas["SignalChoice"][];
  on: Record<string, boolean>;
  onTap: (name: string) => void;
};

/** One large button for everything that can be made or seen, tapped as it happens. */
export function Taps({ label, names, on, onTap }: Props) {
  return (
    <div role="group" aria-label={label}>
      <p className="mb-1 font-semibold">{label}</p>
      <div className="grid grid-cols-2 gap-2 sm:flex sm:flex-wrap">
        {names.map((each) => (
          <Button
            key={each.id}
            aria-pressed={on[each.id] === true}
            className={on[each.id] ? "border-2 border-text font-semibold" : ""}
            onClick={() => onTap(each.id)}
          >
            {each.title} {on[each.id] ? "on" : "off"}
          </Button>
        ))}
      </div>
    </div>
  );
}
