import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
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
    <section className="flex flex-col gap-3">
      <h2>Password</h2>
      <form
        className="grid items-start gap-3 sm:grid-cols-2"
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
          hint="15 characters at least, such as four words"
          type="password"
          autoComplete="new-password"
          maxLength={200}
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
        <Button
          type="submit"
          className="justify-self-start"
          needs={lacking({ "the present password": !present, "the new one": !password })}
          disabled={change.isPending}
        >
          Change it
        </Button>
      </form>
      <ProblemNotice problem={change.error} />
      {change.isSuccess && <p role="status">Changed. Your other devices are signed out.</p>}
    </section>
  );
}
