import { useSession } from "@/api/session";
import { EVERY_BOARD } from "@/features/catalogue/api";
import { SignInPage } from "@/features/session/SignInPage";
import { Button } from "@/ui/Button";
import { Loading, ProblemNotice } from "@/ui/notices";
import { Link, Outlet, useLocation } from "@tanstack/react-router";
import { useEffect, useState, type KeyboardEvent } from "react";
import { KeySheet } from "./KeySheet";
import { useTheme, type Theme } from "./theme";
import { Unbroken } from "@/ui/Unbroken";
import { useKeys } from "@/ui/useKeys";
import { useNewer, version } from "@/with_you/start";
import { leaveOldBehind } from "@/with_you/taking";
import { SignOut } from "./SignOut";
import { useRouteTold } from "./useRouteTold";

const LINK = "min-h-11 px-1 py-2.5 no-underline [&.active]:border-b-4 [&.active]:border-text [&.active]:font-bold";

/** The frame of every page: who is signed in, where one can go. */
export function Shell() {
  const session = useSession();
  const page = useLocation({ select: (location) => location.pathname });
  const [keys, setKeys] = useState(false);
  const person = session.data?.username;
  useEffect(() => {
    if (person) void leaveOldBehind(person, Date.now()).catch(() => undefined);
  }, [person]);
  useKeys({ "?": () => setKeys(true) });
  useRouteTold(session.data ? page : "");
  if (session.isPending)
    return (
      <div className="p-6">
        <Loading what="Opening" />
      </div>
    );
  if (session.data === null) return <SignInPage />;
  if (!session.data) {
    return (
      <main className="mx-auto flex max-w-md flex-col gap-4 p-6">
        <ProblemNotice problem={session.error} />
        <Button onClick={() => void session.refetch()}>Try again</Button>
      </main>
    );
  }
  return (
    <>
      <a href="#page" className="absolute left-2 -top-20 z-40 bg-ground p-3 focus:top-2">
        To the page
      </a>
      <header className="border-b-2 border-text">
        <div className="mx-auto flex max-w-6xl flex-wrap items-center gap-x-1 px-4 sm:gap-x-5">
          <nav aria-label="Main" className="flex flex-wrap gap-x-1 sm:gap-x-5">
            <Link
              to="/jobs"
              search={{ show: "open", search: "", page: 1 }}
              activeOptions={{ includeSearch: false }}
              className={LINK}
            >
              Jobs
            </Link>
            <Link
              to="/machines"
              search={{ search: "", page: 1 }}
              activeOptions={{ includeSearch: false }}
              className={LINK}
            >
              Machines
            </Link>
            <Link to="/bench" search={{}} activeOptions={{ includeSearch: false }} className={LINK}>
              Bench
            </Link>
            <Link to="/catalogue" search={EVERY_BOARD} activeOptions={{ includeSearch: false }} className={LINK}>
              Catalogue
            </Link>
            <Link
              to="/workshop"
              search={{}}
              activeOptions={{ includeSearch: false }}
              className={`hidden sm:inline ${LINK}`}
            >
              Workshop
            </Link>
            <Link to="/stock" className={`hidden sm:inline ${LINK}`}>
              Vans
            </Link>
          </nav>
          {/* another page, another menu: it does not stay open over where it led */}
          <details key={page} className="relative ml-auto" onKeyDown={closeByEscape}>
            <summary className="min-h-11 py-2.5 pr-1">
              <span className="sm:hidden">Menu</span>
              <span className="hidden sm:inline">{session.data.name}</span>
            </summary>
            <div className="absolute right-0 z-10 flex w-64 flex-col gap-3 border border-text bg-ground p-4">
              <p className="text-sm text-faint">
                {session.data.depot}, {session.data.role === "parts_lead" ? "parts lead" : "technician"}
              </p>
              <Link to="/stock" className="min-h-11 py-2.5 sm:hidden">
                Vans
              </Link>
              <Link to="/workshop" search={{}} className="min-h-11 py-2.5 sm:hidden">
                Workshop
              </Link>
              <Link to="/practice" className="min-h-11 py-2.5">
                Practice
              </Link>
              <Link to="/depot" className="min-h-11 py-2.5">
                The depot and its people
              </Link>
              <Link to="/account" className="min-h-11 py-2.5">
                How you sign in
              </Link>
              <Link to="/waiting" className="min-h-11 py-2.5">
                What waits on this device
              </Link>
              <ThemeChoice />
              <Button onClick={() => setKeys(true)}>Words and keys</Button>
              <SignOut person={session.data.username} />
              <Version />
            </div>
          </details>
        </div>
      </header>
      <div id="page" tabIndex={-1} className="outline-none">
        <Unbroken place="This page" on={[page]}>
          <Outlet />
        </Unbroken>
      </div>
      <KeySheet open={keys} onClose={() => setKeys(false)} />
    </>
  );
}

function closeByEscape(event: KeyboardEvent<HTMLDetailsElement>) {
  if (event.key !== "Escape" || !event.currentTarget.open) return;
  event.currentTarget.open = false;
  event.currentTarget.querySelector("summary")?.focus();
}

/** Which version runs; and a newer one, where it is here already. */
function Version() {
  const { newer, open } = useNewer();
  return (
    <div className="text-sm text-faint">
      {newer && <Button onClick={open}>A newer version is here: open it</Button>}
      <p>Version {version}</p>
    </div>
  );
}

function ThemeChoice() {
  const [theme, setTheme] = useTheme();
  return (
    <label className="flex items-center justify-between gap-2">
      Light or dark
      <select
        value={theme}
        onChange={(event) => setTheme(event.target.value as Theme)}
        className="min-h-11 border border-edge bg-raised px-2"
      >
        <option value="device">as the device</option>
        <option value="light">light</option>
        <option value="dark">dark</option>
      </select>
    </label>
  );
}
