import { Front } from "./Front";
import { useFirstDepot } from "@/api/session";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";

const EMPTY = { depot: "", code: "", username: "", name: "", password: "" };

/** The first opening of an installation that nobody uses yet: its first depot, and who leads it. */
export function FirstDepotPage() {
  const make = useFirstDepot();
  const [given, setGiven] = useState(EMPTY);
  const field = (name: keyof typeof EMPTY) => ({
    value: given[name],
    required: true,
    onChange: (event: { target: { value: string } }) => setGiven({ ...given, [name]: event.target.value }),
  });
  return (
    <Front
      title="Nobody is here yet"
      words="Say which depot this is for and who leads it. Boards and kinds of machine need not be there: they are sketched when the first one is met."
      onSend={() => make.mutate(given)}
    >
      <TextField label="Name of the depot" maxLength={120} {...field("depot")} />
      <TextField
        label="Its letters"
        hint="2 to 8 letters or digits; they stand before the numbers of its jobs"
        className="font-mono"
        maxLength={8}
        {...field("code")}
      />
      <TextField label="Your name" autoComplete="name" maxLength={120} {...field("name")} />
      <TextField
        label="Name to sign in with"
        hint="small letters, digits, dots or dashes"
        autoComplete="username"
        autoCapitalize="none"
        spellCheck={false}
        maxLength={40}
        {...field("username")}
      />
      <TextField
        label="Password"
        hint="15 characters at least, such as four words"
        type="password"
        autoComplete="new-password"
        maxLength={200}
        {...field("password")}
      />
      <ProblemNotice problem={make.error} />
      <Button kind="main" type="submit" disabled={make.isPending} className="text-center">
        {make.isPending ? "Opening …" : "Open the depot"}
      </Button>
    </Front>
  );
}
