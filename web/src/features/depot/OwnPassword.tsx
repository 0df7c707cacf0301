import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { useOwnPassword } from "./api";

/** One’s own password, changed with the present one. */
export function OwnPassword() {
  const change = useOwnPassword();
  const [present, setPresent] = useState("");
  const [password, setPassword] = useState("");
  const emptied = () => {
    setPresent("");
    setPassword("");
  };
  return (
    <details className="border-t border-rule">
      <summary className="min-h-11 py-2.5 font-semibold">Change your password</summary>
      <form
        className="grid items-end gap-3 pb-4 sm:grid-cols-[1fr_1fr_auto]"
        onSubmit={(event) => {
          event.preventDefault();
          change.mutate({ present, password }, { onSuccess: emptied });
        }}
      >
        <TextField
          label="The present one"
          type="password"
          autoComplete="current-password"
          maxLength={200}
          value={present}
          onChange={(event) => setPresent(event.target.value)}
        />
        <TextField
          label="The new one"
          type="password"
          autoComplete="new-password"
          maxLength={200}
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
        <Button type="submit" disabled={!present || !password || change.isPending}>
          Change it
        </Button>
      </form>
      <ProblemNotice problem={change.error} />
      {change.isSuccess && <p role="status">Changed. Your other devices are signed out.</p>}
    </details>
  );
}
