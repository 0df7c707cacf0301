import { Button } from "@/ui/Button";
import { Loading, ProblemNotice } from "@/ui/notices";
import { clock } from "@/ui/times";
import { useAccount, useEndSession } from "./api";
import { OwnPassword } from "./OwnPassword";
import { SecondFactor } from "./SecondFactor";

/** How one signs in: the password, a second factor, and where one is signed in. */
export function AccountPage() {
  const account = useAccount();
  const end = useEndSession();
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-6 px-4 py-6">
      <h1>How you sign in</h1>
      {account.isPending && <Loading what="Reading where you are signed in" />}
      <ProblemNotice problem={account.error ?? end.error} />
      {account.data && (
        <section className="flex flex-col gap-2">
          <h2>Where you are signed in</h2>
          <ul className="border-t border-rule" aria-label="Where you are signed in">
            {account.data.sessions.map((each) => (
              <li key={each.id} className="flex min-h-14 flex-wrap items-center gap-x-4 border-b border-rule py-1.5">
                <span>
                  {each.on_a_phone ? "A phone" : "A computer"}
                  {each.here && ", here"}
                </span>
                <span className="text-sm text-faint">
                  since {clock(each.at)}
                  {each.address && `, from ${each.address}`}
                </span>
                {!each.here && (
                  <Button className="ml-auto" disabled={end.isPending} onClick={() => end.mutate(each.id)}>
                    Sign out there
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      {account.data && <SecondFactor inUse={account.data.second_factor} />}
      <OwnPassword />
    </main>
  );
}
