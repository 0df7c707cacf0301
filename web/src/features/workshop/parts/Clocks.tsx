import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { TextField } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import type { Changing, Draft } from "../api";
import { clocksFrom, clocksText, countersFrom, countersText, type Clock, type Counter } from "./clockWords";

type Props = { draft: Draft; changing: Changing };

/** The clocks and counters that arrows may name, beside the clock that each state has by itself. */
export function Clocks({ draft, changing }: Props) {
  const behaviour = draft.document.behaviour as { clocks?: Clock[]; counters?: Counter[] };
  const stand = { clocks: clocksText(behaviour.clocks ?? []), counters: countersText(behaviour.counters ?? []) };
  const [typed, setTyped] = useKeptState<typeof stand | null>("clocks and counters", null);
  const shown = typed ?? stand;
  const put = (what: "clocks" | "counters", made: object[]) =>
    changing.change({ what: "place", body: { path: ["board", "behaviour", what], after: made.length ? made : null } });
  const keep = () => {
    if (shown.clocks !== stand.clocks) put("clocks", clocksFrom(shown.clocks));
    if (shown.counters !== stand.counters) put("counters", countersFrom(shown.counters));
    setTyped(null);
  };
  return (
    <form
      aria-label="Clocks and counters"
      className="grid items-end gap-3 sm:grid-cols-[1fr_1fr_auto]"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <TextField
        label="Clocks"
        hint="a name each; expired: as if it had run for ever; kept: it runs without power; while fan: it adds up how long fan is on"
        className="font-mono"
        spellCheck={false}
        maxLength={400}
        value={shown.clocks}
        onChange={(event) => setTyped({ ...shown, clocks: event.target.value })}
      />
      <TextField
        label="Counters"
        hint="a name each; kept: it survives a power loss"
        className="font-mono"
        spellCheck={false}
        maxLength={400}
        value={shown.counters}
        onChange={(event) => setTyped({ ...shown, counters: event.target.value })}
      />
      <Button type="submit" needs={lacking({ "a change": typed === null })}>
        Keep
      </Button>
    </form>
  );
}
