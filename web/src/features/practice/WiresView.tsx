import { WireSwatch } from "@/drawing/Lead";
import { Button } from "@/ui/Button";
import { Choice } from "@/ui/fields";
import type { Action, Task, Wiring } from "./task";

type Props = { shown: Wiring; task: Task; onAct: (action: Action) => void };

/** Wires are put where they belong. */
export function WiresView(props: Props) {
  const left = props.shown.wires.filter((each) => each.at === "").length;
  return (
    <>
      <Wires {...props} />
      <Button kind="main" className="self-start" onClick={() => props.onAct({ do: "done" })}>
        {left > 0 ? `They are on; ${left} stay off` : "They are all on"}
      </Button>
    </>
  );
}

/** Tagged wires, each with where it was and what it carried; and the places of the new board. */
export function Wires({ shown, task, onAct }: Props) {
  return (
    <>
      <p className="text-faint">
        They come off {task.original.part_number}; they go on {task.replacement.part_number}.
      </p>
      <ul className="border-t border-rule">
        {shown.wires.map((each) => (
          <li key={each.id} className="border-b border-rule py-3">
            <p className="flex flex-wrap items-center gap-2">
              <strong className="font-mono">{each.id}</strong> <WireSwatch colour={each.colour} /> {each.colour}, was at{" "}
              <span className="font-mono text-original">{each.was}</span>: {each.carried}
            </p>
            <Choice
              label={`Where ${each.id} goes`}
              value={each.at}
              onChange={(event) => onAct({ do: "put", wire: each.id, place: event.target.value })}
            >
              <option value="">on nothing yet</option>
              {shown.places.map((place) => (
                <option key={place.place} value={place.place}>
                  {place.place} {place.mark && `(${place.mark})`} {place.title}
                </option>
              ))}
            </Choice>
          </li>
        ))}
      </ul>
    </>
  );
}
