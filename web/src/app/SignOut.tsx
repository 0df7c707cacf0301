import { countUnsent } from "@/api/unsent";
import { useSignOut } from "@/api/session";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { forgetPerson } from "@/with_you/forgetting";
import { Link } from "@tanstack/react-router";
import { useState } from "react";

/** Signs out, and leaves nothing on this device; what waits to be sent is asked about first. */
export function SignOut({ person }: { person: string }) {
  const signOut = useSignOut();
  const [left, setLeft] = useState(0);
  const leave = (entriesToo: boolean) =>
    signOut.mutate(undefined, { onSuccess: () => void forgetPerson(person, entriesToo) });
  const ask = async () => {
    const count = await countUnsent(person);
    if (count > 0) setLeft(count);
    else leave(true);
  };
  return (
    <>
      {left === 0 ? (
        <Button onClick={() => void ask()}>Sign out</Button>
      ) : (
        <div role="group" aria-label="Before you sign out" className="flex flex-col gap-2 border-t border-text pt-3">
          <p>
            {left === 1 ? "1 thing that you entered is" : `${left} things that you entered are`} on this device only:
            the depot does not have {left === 1 ? "it" : "them"}.
          </p>
          <Link to="/waiting" className="min-h-11 py-2.5">
            Look at what waits
          </Link>
          <Button onClick={() => leave(false)}>Sign out, keep what waits for me here</Button>
          <Button onClick={() => leave(true)}>Sign out and forget it</Button>
          <Button onClick={() => setLeft(0)}>Stay signed in</Button>
        </div>
      )}
      <ProblemNotice problem={signOut.error} />
    </>
  );
}
