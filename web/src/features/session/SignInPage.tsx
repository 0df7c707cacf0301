import { Front } from "./Front";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { Problem } from "@/api/client";
import { useState } from "react";
import { useOpening, useSignIn } from "@/api/session";
import { FirstDepotPage } from "./FirstDepotPage";

/** The first screen: name and password. */
export function SignInPage() {
  const signIn = useSignIn();
  const opening = useOpening();
  const [username, setUsername] = useState("");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const asked = signIn.error instanceof Problem && signIn.error.title === "A code is needed";
  if (opening.data?.first) return <FirstDepotPage />;
  return (
    <Front
      title="Worthy Twin"
      words="The replacement is the original’s twin, and we can show it, or show exactly where it is not."
      mark={<TwoInks />}
      onSend={() => signIn.mutate({ username: username.trim(), password, code })}
    >
      <TextField
        label="Name"
        autoComplete="username"
        autoCapitalize="none"
        spellCheck={false}
        required
        value={username}
        onChange={(event) => setUsername(event.target.value)}
      />
      <TextField
        label="Password"
        type="password"
        autoComplete="current-password"
        required
        value={password}
        onChange={(event) => setPassword(event.target.value)}
      />
      {(asked || code) && (
        <TextField
          label="Code"
          inputMode="text"
          autoComplete="one-time-code"
          autoCapitalize="none"
          spellCheck={false}
          autoFocus
          maxLength={40}
          value={code}
          onChange={(event) => setCode(event.target.value)}
        />
      )}
      <ProblemNotice problem={signIn.error} />
      <Button kind="main" type="submit" disabled={signIn.isPending} className="text-center">
        {signIn.isPending ? "Signing in …" : "Sign in"}
      </Button>
    </Front>
  );
}

function TwoInks() {
  return (
    <svg viewBox="0 0 120 56" className="h-14" aria-hidden="true">
      <rect x="4" y="6" width="62" height="38" fill="var(--original)" />
      <rect x="30" y="14" width="66" height="38" rx="12" fill="var(--replacement)" />
      <path d="M42 14H66V44H30V26A12 12 0 0 1 42 14Z" fill="var(--both)" />
    </svg>
  );
}
