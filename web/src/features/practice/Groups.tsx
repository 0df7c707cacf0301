import { usePeople } from "@/api/people";
import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { Part } from "@/ui/Part";
import { Link } from "@tanstack/react-router";
import { useTypedForm } from "@/ui/typed";
import { useGroups, useKeepGroup } from "./api";

/** The groups that one belongs to, or looks after. */
export function Groups() {
  const groups = useGroups();
  const trains = useSession().data?.keeps_catalogue === true;
  if (!trains && !groups.data?.total) return null;
  return (
    <Part title="Groups" status={groups.data ? `${groups.data.total}` : ""} open={!trains}>
      <ProblemNotice problem={groups.error} />
      <ul className="border-t border-rule">
        {groups.data?.items.map((each) => (
          <li key={each.id} className="border-b border-rule">
            <Link
              to="/practice/group/$id"
              params={{ id: each.id }}
              className="block min-h-12 py-3 no-underline hover:bg-raised"
            >
              <strong>{each.name}</strong>, {each.people} {each.people === 1 ? "learner" : "learners"}, {each.tasks}{" "}
              tasks
            </Link>
          </li>
        ))}
      </ul>
      {trains && <AddGroup />}
    </Part>
  );
}

function AddGroup() {
  const keep = useKeepGroup(undefined);
  const people = usePeople(true);
  const { fields, set, done } = useTypedForm("new group", { name: "", members: [] as string[] });
  const { name, members } = fields;
  const flip = (who: string) =>
    set({ members: members.includes(who) ? members.filter((each) => each !== who) : [...members, who] });
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        keep.mutate(fields, { onSuccess: done });
      }}
    >
      <TextField
        label="A new group"
        value={name}
        maxLength={80}
        onChange={(event) => set({ name: event.target.value })}
      />
      <fieldset className="flex flex-wrap gap-x-5">
        <legend className="font-semibold">Who is in it</legend>
        {people.data?.items.map((each) => (
          <label key={each.username} className="flex min-h-12 items-center gap-2">
            <input
              type="checkbox"
              className="size-6"
              checked={members.includes(each.username)}
              onChange={() => flip(each.username)}
            />
            {each.name}
          </label>
        ))}
      </fieldset>
      <ProblemNotice problem={keep.error ?? people.error} />
      <Button
        type="submit"
        className="self-start"
        needs={lacking({ "its name": !name.trim(), "who is in it": members.length === 0 })}
        disabled={keep.isPending}
      >
        Add the group
      </Button>
    </form>
  );
}
