import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useKeptState } from "@/ui/typed";
import { useState } from "react";
import { useWithdraw, type Statement } from "./api";

/** One statement; a parts lead may withdraw it with a reason, or let it count again. */
export function StatementRow({ statement }: { statement: Statement }) {
  const [reason, setReason] = useKeptState(`withdraw ${statement.id}`, "");
  const [asking, setAsking] = useState(reason !== "");
  const leave = () => (setReason(""), setAsking(false));
  const withdraw = useWithdraw();
  const keeps = useSession().data?.keeps_catalogue === true;
  const conditions = Object.entries(statement.conditions);
  return (
    <li className="border-b border-rule py-2">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <p className="min-w-0 wrap-anywhere">
          <span className="font-mono">{statement.original}</span> →{" "}
          <span className="font-mono">{statement.replacement}</span> <strong>{statement.relation}</strong>
          {statement.words && `, “${statement.words}”`}
          <span className="block text-sm text-faint">
            {statement.id}; {statement.source || "no source"}
            {statement.dated && `, ${statement.dated}`}
            {conditions.length > 0 &&
              `; if ${conditions.map(([name, value]) => `${name} ${written(value)}`).join(", ")}`}
            {statement.needs.length > 0 && `; needs ${statement.needs.join(", ")}`}
            {(statement.worked > 0 || statement.failed > 0) &&
              `; worked ${statement.worked}, did not ${statement.failed}`}
            {statement.withdrawn_because && `; withdrawn: ${statement.withdrawn_because}`}
          </span>
        </p>
        {keeps &&
          (statement.withdrawn_because ? (
            <Button onClick={() => withdraw.mutate({ id: statement.id, reason: null })}>Let it count again</Button>
          ) : (
            !asking && (
              <Button aria-label={`Withdraw ${statement.id}`} onClick={() => setAsking(true)}>
                Withdraw
              </Button>
            )
          ))}
      </div>
      {asking && (
        <form
          className="mt-2 flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            withdraw.mutate({ id: statement.id, reason: reason.trim() }, { onSuccess: leave });
          }}
        >
          <div className="grow">
            <TextField
              label={`Why ${statement.id} counts no more`}
              value={reason}
              maxLength={2000}
              onChange={(event) => setReason(event.target.value)}
            />
          </div>
          <Button
            type="submit"
            kind="main"
            needs={lacking({ "the reason": !reason.trim() })}
            disabled={withdraw.isPending}
          >
            Withdraw it
          </Button>
          <Button onClick={leave}>Leave it</Button>
        </form>
      )}
      <ProblemNotice problem={withdraw.error} />
    </li>
  );
}

function written(value: unknown): string {
  if (Array.isArray(value)) return value.map(written).join(" or ");
  if (typeof value === "object" && value !== null) {
    const { from, to } = value as { from?: number; to?: number };
    if (from !== undefined && to !== undefined) return `${from} to ${to}`;
    return from !== undefined ? `at least ${from}` : `at most ${to}`;
  }
  return typeof value === "boolean" ? (value ? "yes" : "no") : String(value);
}
