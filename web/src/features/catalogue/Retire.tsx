import type { Schemas } from "@/api/client";
import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useNavigate } from "@tanstack/react-router";
import { useTypedForm } from "@/ui/typed";
import { EVERY_BOARD, useRetire } from "./api";

/** The parts lead withdraws a board with a reason and a successor, or removes one on which nothing rests. */
export function Retire({ board }: { board: Schemas["BoardShown"] }) {
  const session = useSession();
  const retire = useRetire();
  const navigate = useNavigate();
  const { fields, set, done } = useTypedForm("withdraw", { why: "", successor: "" });
  const { why, successor } = fields;
  if (!session.data?.keeps_catalogue) return null;
  const { part_number } = board;
  return (
    <details className="border-t border-rule">
      <summary className="min-h-11 py-2.5">{board.withdrawn ? "Bring it back" : "Withdraw or remove it"}</summary>
      <div className="flex flex-col gap-3 pb-3">
        <ProblemNotice problem={retire.error} />
        {board.withdrawn ? (
          <Button className="self-start" onClick={() => retire.mutate({ to: "bring back", part_number })}>
            Let it be chosen again
          </Button>
        ) : (
          <div className="grid items-end gap-3 sm:grid-cols-[2fr_1fr_auto]">
            <TextField
              label="Why it is not to be used any more"
              maxLength={2000}
              value={why}
              onChange={(event) => set({ why: event.target.value })}
            />
            <TextField
              label="Take instead"
              className="font-mono"
              maxLength={80}
              value={successor}
              onChange={(event) => set({ successor: event.target.value })}
            />
            <Button
              needs={lacking({ "the reason": !why.trim() })}
              onClick={() => retire.mutate({ to: "withdraw", part_number, ...fields }, { onSuccess: done })}
            >
              Withdraw it
            </Button>
          </div>
        )}
        <Button
          kind="quiet"
          className="self-start"
          onClick={() =>
            retire.mutate(
              { to: "remove", part_number },
              { onSuccess: () => void navigate({ to: "/catalogue", search: EVERY_BOARD }) },
            )
          }
        >
          Remove it: only where no job and no draft rests on it
        </Button>
      </div>
    </details>
  );
}
