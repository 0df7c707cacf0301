import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { Choice, TextField } from "@/ui/fields";
import { lacking } from "@/ui/lacking";
import { Part } from "@/ui/Part";
import { when } from "@/ui/times";
import { useTypedForm } from "@/ui/typed";
import type { StepProps } from "../../stepProps";

type Wiring = Schemas["WiringShown"];
type Props = StepProps & { wiring: Wiring };

const TIED = "tie back";
const JOIN = "join ";
const EMPTY = { wire: "", to: "", second: "", lead: "", why: "" };

/** What a person puts by hand: a whole plug that nobody knows, or one wire onto any pin of the new board. */
export function PlaceWires({ job, put, wiring }: Props) {
  const { fields, set, done } = useTypedForm("placed wire", EMPTY);
  if (job.closed && wiring.by_hand.length === 0) return null;
  const onPin = fields.to !== "" && fields.to !== TIED && !fields.to.startsWith(JOIN);
  const save = async () => {
    const taken = await put({
      target: `placed.${fields.wire}`,
      after: {
        to: onPin ? [fields.to, ...(fields.second ? [fields.second] : [])] : [],
        ...(fields.to.startsWith(JOIN) ? { joined: fields.to.slice(JOIN.length) } : {}),
        ...(onPin && fields.lead.trim() ? { lead: fields.lead.trim() } : {}),
      },
      reason: fields.why.trim(),
    });
    if (taken) done();
  };
  return (
    <>
      {!job.closed &&
        wiring.offered.map((each) => (
          <div key={each.plug} className="flex flex-col items-start gap-2 border-l-4 border-edge pl-3">
            <p>
              Plug {each.plug}: what its pins carry is not known. The new board has {each.socket} with the same pins.
              Compare what is printed at both before you move it.
            </p>
            <Button onClick={() => void put({ target: `plug_put.${each.plug}`, after: { to: each.socket } })}>
              Move plug {each.plug} complete onto {each.socket}
            </Button>
          </div>
        ))}
      <Part
        title="Wires put by hand"
        status={wiring.by_hand.length || "none"}
        open={wiring.by_hand.length > 0 || wiring.wires.some((each) => each.to_place === null)}
      >
        {wiring.by_hand.length > 0 && (
          <ul>
            {wiring.by_hand.map((each) => (
              <li
                key={`${each.kind}.${each.name}`}
                className="flex flex-wrap items-center gap-3 border-b border-rule py-2"
              >
                <span className="grow">
                  {each.words}
                  <span className="block text-sm text-faint">
                    {[each.why, each.by, when(each.at)].filter(Boolean).join(" · ")}
                  </span>
                </span>
                {!job.closed && (
                  <Button kind="quiet" onClick={() => void put({ target: `${each.kind}.${each.name}`, after: null })}>
                    Remove
                  </Button>
                )}
              </li>
            ))}
          </ul>
        )}
        {!job.closed && (
          <form
            aria-label="Put a wire by hand"
            className="flex flex-col gap-3"
            onSubmit={(event) => {
              event.preventDefault();
              void save();
            }}
          >
            <div className="grid gap-3 sm:grid-cols-2">
              <Choice label="Wire" value={fields.wire} onChange={(event) => set({ wire: event.target.value })}>
                <option value="">choose</option>
                {wiring.wires.map((each) => (
                  <option key={each.id} value={each.name}>
                    {wireWords(each)}
                  </option>
                ))}
              </Choice>
              <Choice
                label="Goes to"
                value={fields.to}
                onChange={(event) => set({ to: event.target.value, second: "", lead: "" })}
              >
                <option value="">choose</option>
                <option value={TIED}>nowhere: insulate and tie back</option>
                <optgroup label="Pins of the new board">
                  <Pins pins={wiring.replacement_pins} />
                </optgroup>
                <optgroup label="Join it with another wire">
                  {wiring.wires
                    .filter((each) => each.to_place !== null && each.name !== fields.wire)
                    .map((each) => (
                      <option key={each.id} value={JOIN + each.name}>
                        {wireWords(each)}
                      </option>
                    ))}
                </optgroup>
              </Choice>
            </div>
            {onPin && (
              <div className="grid gap-3 sm:grid-cols-2">
                <Choice
                  label="Link on to a second pin"
                  value={fields.second}
                  onChange={(event) => set({ second: event.target.value })}
                >
                  <option value="">no second pin</option>
                  <Pins pins={wiring.replacement_pins.filter((each) => each.place !== fields.to)} />
                </Choice>
                <TextField
                  label="Through an adapter cable"
                  hint={
                    wiring.leads.length
                      ? `The setting table names: ${wiring.leads.join(", ")}`
                      : "Its name, if there is one"
                  }
                  maxLength={80}
                  value={fields.lead}
                  onChange={(event) => set({ lead: event.target.value })}
                />
              </div>
            )}
            <TextField
              label="Why"
              hint="Needed where the pins do not agree"
              maxLength={500}
              value={fields.why}
              onChange={(event) => set({ why: event.target.value })}
            />
            <Button
              type="submit"
              className="self-start"
              needs={lacking({ "the wire": !fields.wire, "where it goes": !fields.to })}
            >
              Save where it goes
            </Button>
          </form>
        )}
      </Part>
    </>
  );
}

function Pins({ pins }: { pins: Wiring["replacement_pins"] }) {
  return pins.map((each) => (
    <option key={each.place} value={each.place}>
      {[each.place, each.mark, each.title === "nothing" ? "" : each.title].filter(Boolean).join(" ")}
    </option>
  ));
}

function wireWords(each: Wiring["wires"][number]) {
  const named = [each.from_place, each.tag && `tag ${each.tag}`, each.colour].filter(Boolean).join(" ");
  const carries = each.carries === "nothing" ? "" : ` (${each.carries})`;
  return `${named}${carries}`;
}
