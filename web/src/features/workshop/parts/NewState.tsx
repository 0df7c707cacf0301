import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import type { Changing } from "../api";

type Props = { changing: Changing; machine: number };

/** One more state, by its name; the first one is where the board starts. */
export function NewState({ changing, machine }: Props) {
  const [name, setName] = useKeptState("new state", "");
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (!name.trim()) return;
        changing.change(
          { what: "state", body: { machine, was: "", name: name.trim(), title: "", on: "", arrows: [], gone: false } },
          undefined,
          () => setName(""),
        );
      }}
    >
      <div className="w-52">
        <TextField
          label="Another state"
          className="font-mono"
          spellCheck={false}
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </div>
      <Button type="submit" needs={lacking({ "its name": !name.trim() })}>
        Add the state
      </Button>
    </form>
  );
}
