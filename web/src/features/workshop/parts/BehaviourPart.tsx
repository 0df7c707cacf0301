import type { Schemas } from "@/api/client";
import { Player, type FamilyDocument } from "@/comparison/Player";
import { drawable } from "@/drawing/machine";
import { StateDiagram } from "@/drawing/StateDiagram";
import { useFamily } from "@/api/families";
import { Button } from "@/ui/Button";
import { SideWords } from "@/ui/inks";
import { useState } from "react";
import { findingsUnder, playDraft, type Draft } from "../api";
import { withoutMachine, type Behaviour } from "../machines";
import { Borrow } from "./Borrow";
import { Clocks } from "./Clocks";
import { NewState } from "./NewState";
import { Machines } from "./Machines";
import { Source } from "./Source";
import { StateTable } from "./StateTable";
import type { PartProps } from "./types";

/** How the board behaves: a table for each state, the diagram that they make, and scenarios played on it at once. */
export function BehaviourPart({ draft, changing }: PartProps) {
  const behaviour = draft.document.behaviour as Behaviour | undefined;
  const titles = Object.fromEntries(
    [...draft.inputs, ...draft.outputs, ...draft.functions].map((each) => [each.id, each.title]),
  );
  const machines = (behaviour?.machines ?? (behaviour ? [behaviour] : [])).map(drawable);
  const [shown, setShown] = useState<string | null>(machines[0]?.start ?? null);
  const arrows = (machine: number, from: string, change: (old: Arrows) => Arrows) => {
    const state = draft.machines[machine]?.states.find((each) => each.name === from);
    if (!state) return;
    const { name, title, on } = state;
    const body = { machine, was: name, name, title, on, arrows: change(state.arrows), gone: false };
    changing.change({ what: "state", body });
  };
  const faults = findingsUnder(draft, "behaviour", "functions").filter(
    (each) => each.weight === "fault" && !each.steps,
  );
  const whole = findingsUnder(draft, "behaviour").filter((each) => !each.place.includes(".states."));
  return (
    <section aria-label="Behaviour" className="flex flex-col gap-4">
      <p className="text-faint">
        States, what is on in them, and the arrows out of them in the order in which they are looked at. Inputs and
        outputs may be written by name.
      </p>
      {behaviour ? (
        <Source draft={draft} changing={changing} part="behaviour" />
      ) : (
        <div className="flex flex-col items-start gap-3">
          <p>Nobody has written down how this board behaves. A twin check stays unproved until somebody does.</p>
          <Button
            kind="main"
            onClick={() => changing.change({ what: "borrow", body: { part: "behaviour", part_number: "" } })}
          >
            Begin with what is usual for this kind
          </Button>
        </div>
      )}
      {machines.map((machine, index) => (
        <section
          key={index}
          aria-label={machine.id ? `Machine ${machine.id}` : "The machine"}
          className="flex flex-col gap-3"
        >
          {machine.id && (
            <div className="flex flex-wrap items-baseline gap-x-4">
              <h3>Machine {machine.id}</h3>
              {machines.length > 1 && behaviour && (
                <Button
                  kind="quiet"
                  className="text-sm"
                  onClick={() =>
                    changing.change({
                      what: "place",
                      body: { path: ["board", "behaviour"], after: withoutMachine(behaviour, index) },
                    })
                  }
                >
                  Take machine {machine.id} out
                </Button>
              )}
            </div>
          )}
          {whole.map((each) => (
            <p
              key={each.place + each.says}
              role={each.weight === "fault" ? "alert" : undefined}
              className="font-semibold"
            >
              {each.says}.
            </p>
          ))}
          <StateDiagram
            machine={machine}
            titles={titles}
            chosen={shown !== null && shown in machine.states ? shown : undefined}
            onChoose={setShown}
            onArrow={(from, to) => arrows(index, from, (old) => [...old, { ...BARE, to }])}
            onTakeOut={(from, at) => arrows(index, from, (old) => old.filter((_, each) => each !== at))}
          />
          {draft.machines[index]?.states
            .filter(
              (state) =>
                shown === null ||
                state.name === shown ||
                (!(shown in machine.states) && state.name === machine.start) ||
                faulty(draft, state.place),
            )
            .map((state) => (
              <StateTable key={state.name} draft={draft} changing={changing} machine={index} state={state} />
            ))}
          {shown !== null && (
            <Button kind="quiet" className="self-start" onClick={() => setShown(null)}>
              Every state, one below the other
            </Button>
          )}
          <NewState changing={changing} machine={index} />
        </section>
      ))}
      {behaviour && <Clocks draft={draft} changing={changing} />}
      {behaviour && <Machines behaviour={behaviour} changing={changing} />}
      {!behaviour && <NewState changing={changing} machine={0} />}
      <div className="flex flex-wrap gap-3">
        <Borrow draft={draft} changing={changing} part="behaviour" words="As another board behaves" />
      </div>
      {behaviour && (faults.length ? <p>It can be played once its faults are put right.</p> : <Play draft={draft} />)}
    </section>
  );
}

type Arrows = Schemas["DraftState"]["arrows"];
/** An arrow that names nothing but where it leads. */
const BARE = { inputs: "", after: "", settings: "", does: "" };

const faulty = (draft: Draft, place: string) =>
  findingsUnder(draft, `${place}.`).some((each) => each.weight === "fault");

/** Ways into a round without end that were found on the draft, as it leaves its maker. */
function endlessOf(draft: Draft) {
  return draft.findings.flatMap(({ steps, at }) => (steps ? [{ board: "This draft", steps, at }] : []));
}

/** Scenarios on the revision in use (first ink) and the draft (second ink). */
function Play({ draft }: { draft: Draft }) {
  const family = useFamily(draft.family);
  if (!family.data) return null;
  return (
    <section className="flex flex-col gap-3" aria-label="Play it">
      <h3>Play it</h3>
      <p className="text-faint">Both as they leave the maker.</p>
      <SideWords value={{ original: `Revision ${draft.current}`, replacement: "This draft" }}>
        <Player
          family={family.data.document as FamilyDocument}
          endless={endlessOf(draft)}
          pairKey={["draft", draft.id, draft.version]}
          play={(scenario) => playDraft(draft.id, scenario)}
        />
      </SideWords>
    </section>
  );
}
