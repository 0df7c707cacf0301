import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Choice, TextField } from "@/ui/fields";
import { Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { isTypedAt, useTypedForm } from "@/ui/typed";
import { useState } from "react";
import {
  useAddPerson,
  useChangePerson,
  useGivePassword,
  usePeople,
  useLoseDevices,
  useTakeSecondFactor,
  type Person,
} from "./api";

const ROLES: [Person["role"], string][] = [
  ["technician", "technician"],
  ["parts_lead", "parts lead"],
];
const NOBODY = { username: "", name: "", role: "technician" as Person["role"] };

/** Who works for the depot; its parts leads add people and say what each may do. */
export function People() {
  const [page, setPage] = useState(1);
  const people = usePeople(page);
  const may = useSession().data?.keeps_catalogue === true;
  return (
    <section className="flex flex-col gap-3">
      <h2>People</h2>
      {people.isPending && <Loading what="Reading who works here" />}
      <ProblemNotice problem={people.error} />
      <ul className="border-t border-rule" aria-label="People of the depot">
        {people.data?.items.map((each) => (
          <li key={each.username} className="border-b border-rule">
            <One person={each} may={may} />
          </li>
        ))}
      </ul>
      {people.data && <Pager {...people.data} onPage={setPage} />}
      {may && <AddPerson />}
    </section>
  );
}

function One({ person, may }: { person: Person; may: boolean }) {
  const head = (
    <>
      <span className={person.active ? "font-semibold" : "text-faint line-through"}>
        {person.name || person.username}
      </span>
      <span className="font-mono text-faint">{person.username}</span>
      <span className="ml-auto text-sm text-faint">
        {person.role === "parts_lead" ? "parts lead" : "technician"}
        {person.you && ", you"}
        {!person.active && ", signs in no more"}
      </span>
    </>
  );
  if (!may) return <p className="flex min-h-11 flex-wrap items-baseline gap-x-4 py-2.5">{head}</p>;
  return (
    <details>
      <summary className="flex min-h-11 flex-wrap items-baseline gap-x-4 py-2.5">{head}</summary>
      <ChangePerson key={JSON.stringify(person)} person={person} />
    </details>
  );
}

function ChangePerson({ person }: { person: Person }) {
  const change = useChangePerson();
  const give = useGivePassword();
  const alone = useTakeSecondFactor();
  const lose = useLoseDevices();
  const { fields, set, forget } = useTypedForm(person.username, { name: person.name, role: person.role });
  const { name, role } = fields;
  const [password, setPassword] = useState("");
  const said = { username: person.username, name, role, active: person.active };
  return (
    <div className="flex flex-col gap-3 pb-4">
      <div className="grid items-end gap-3 sm:grid-cols-[2fr_1fr_auto]">
        <TextField label="Name" maxLength={120} value={name} onChange={(event) => set({ name: event.target.value })} />
        <RoleChoice role={role} onRole={(next) => set({ role: next })} />
        <Button disabled={change.isPending} onClick={() => change.mutate(said, { onSuccess: forget })}>
          Keep it
        </Button>
      </div>
      <div className="grid items-end gap-3 sm:grid-cols-[2fr_1fr_auto]">
        <TextField
          label="Another password"
          hint="where the old one is forgotten; 15 characters at least"
          type="password"
          autoComplete="new-password"
          maxLength={200}
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
        <span role="status">{give.isSuccess && "Given. Tell it to them."}</span>
        <Button
          needs={lacking({ "the password": !password })}
          disabled={give.isPending}
          onClick={() => give.mutate({ username: person.username, password }, { onSuccess: () => setPassword("") })}
        >
          Give it
        </Button>
      </div>
      <Button kind="quiet" className="self-start" onClick={() => change.mutate({ ...said, active: !person.active })}>
        {person.active ? "Let them sign in no more; what they recorded stays" : "Let them sign in again"}
      </Button>
      {person.second_factor && (
        <Button kind="quiet" className="self-start" onClick={() => alone.mutate(person.username)}>
          Let them sign in without the second factor; the device is lost
        </Button>
      )}
      <details>
        <summary className="min-h-11 py-2.5">A device of theirs is lost</summary>
        <div className="flex flex-col gap-2">
          <p>
            They are signed out everywhere. A lost device forgets everything the next time that it reaches the depot,
            what waits on it as well.
          </p>
          <Button className="self-start" disabled={lose.isPending} onClick={() => lose.mutate(person.username)}>
            Sign them out and have their devices forget
          </Button>
          <span role="status">{lose.isSuccess && "Done. They sign in anew."}</span>
        </div>
      </details>
      <ProblemNotice problem={change.error ?? give.error ?? alone.error ?? lose.error} />
    </div>
  );
}

function AddPerson() {
  const add = useAddPerson();
  const { fields: given, set, done } = useTypedForm("another person", NOBODY);
  // a password is kept nowhere
  const [password, setPassword] = useState("");
  const field = (name: "username" | "name") => ({
    value: given[name],
    onChange: (event: { target: { value: string } }) => set({ [name]: event.target.value }),
  });
  return (
    <details className="border-b border-rule" open={isTypedAt("another person") || undefined}>
      <summary className="min-h-11 py-2.5 font-semibold">Add somebody</summary>
      <form
        className="grid gap-3 pb-4 sm:grid-cols-2"
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate({ ...given, password }, { onSuccess: () => (done(), setPassword("")) });
        }}
      >
        <TextField label="Name" autoComplete="off" maxLength={120} {...field("name")} />
        <TextField
          label="Name to sign in with"
          hint="small letters, digits, dots or dashes"
          autoCapitalize="none"
          autoComplete="off"
          spellCheck={false}
          maxLength={40}
          {...field("username")}
        />
        <RoleChoice role={given.role} onRole={(role) => set({ role })} />
        <TextField
          label="Password to begin with"
          hint="15 characters at least, such as four words; they can change it"
          type="password"
          autoComplete="new-password"
          maxLength={200}
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
        <Button
          kind="main"
          type="submit"
          className="justify-self-start"
          needs={lacking({ "a name to sign in with": !given.username, "a password": !password })}
          disabled={add.isPending}
        >
          Add them
        </Button>
        <ProblemNotice problem={add.error} />
      </form>
    </details>
  );
}

function RoleChoice({ role, onRole }: { role: Person["role"]; onRole: (role: Person["role"]) => void }) {
  return (
    <Choice label="Works as" value={role} onChange={(event) => onRole(event.target.value as Person["role"])}>
      {ROLES.map(([value, words]) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))}
    </Choice>
  );
}
