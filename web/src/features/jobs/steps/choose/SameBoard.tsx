import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { Segments } from "@/ui/Segments";
import { useKeptState } from "@/ui/typed";
import type { StepProps } from "../../stepProps";

type Same = Schemas["SameBoard"];

const WHICH = [
  ["new", "a new one"],
  ["exchange", "an exchange unit"],
  ["repaired", "this one, repaired"],
  ["donor", "one out of another machine"],
] as const;
const OF: Record<Same["which"], string> = {
  new: "Who it is from",
  exchange: "Who exchanged it",
  repaired: "What was repaired on it",
  donor: "Which machine it came out of, and why",
};
const TOLD: readonly Same["which"][] = ["repaired", "donor"];

/** Where the replacement bears the original’s own number: which one of them it is, and what must be known of it. */
export function SameBoard({ job, put }: StepProps) {
  const [own, setOwn] = useKeptState<Same | null>("which one of the same number", null);
  if (!job.replacement || job.replacement !== job.original) return null;
  const said = own ?? job.same_board;
  const set = (change: Partial<Same>) => setOwn({ ...(said ?? { which: "new" }), ...change });
  const ready = own !== null && (!TOLD.includes(own.which) || !!own.of?.trim());
  return (
    <section aria-label="Which one of the same number" className="flex flex-col gap-3 border-y border-rule py-3">
      <p>It bears the old board’s own number: it is set as that stood, and its plugs go over. Which one is it?</p>
      <Segments
        label="It is"
        choices={WHICH}
        value={said?.which ?? ""}
        disabled={job.closed}
        onChange={(which) => set({ which })}
      />
      {said && (
        <div className="grid gap-3 sm:grid-cols-3">
          <TextField
            label={OF[said.which]}
            maxLength={200}
            disabled={job.closed}
            value={said.of ?? ""}
            onChange={(event) => set({ of: event.target.value })}
          />
          <TextField
            label="Revision on the board"
            hint="another one may behave otherwise"
            className="font-mono"
            maxLength={80}
            disabled={job.closed}
            value={said.revision ?? ""}
            onChange={(event) => set({ revision: event.target.value })}
          />
          <TextField
            label="Firmware, where it says one"
            className="font-mono"
            maxLength={80}
            disabled={job.closed}
            value={said.firmware ?? ""}
            onChange={(event) => set({ firmware: event.target.value })}
          />
        </div>
      )}
      {said && said.which !== "new" && (
        <div>
          <p className="mb-1 text-sm">Somebody saw it work since</p>
          <Segments
            label="Somebody saw it work since"
            choices={[
              ["yes", "yes"],
              ["no", "no, or not known"],
            ]}
            value={said.worked ?? ""}
            disabled={job.closed}
            onChange={(worked) => set({ worked })}
          />
        </div>
      )}
      {own && (
        <Button
          kind="main"
          className="self-start"
          needs={lacking({ "what must be known of it": !ready })}
          onClick={() => void put({ target: "same_board", after: filled(own) }).then(() => setOwn(null))}
        >
          Keep it
        </Button>
      )}
    </section>
  );
}

/** What was said, without what was left empty. */
function filled(said: Same): Same {
  const { which, ...rest } = said;
  return {
    which,
    ...Object.fromEntries(Object.entries(rest).filter(([, value]) => typeof value === "string" && value.trim())),
  };
}
