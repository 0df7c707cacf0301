import { usePeople } from "@/api/people";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Choice, NumberField, TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { numberFrom } from "@/ui/numbers";
import { Sheet } from "@/ui/Sheet";
import { useTypedForm } from "@/ui/typed";
import { useState } from "react";
import { useKeepVan, useRemoveVan, type Van } from "./api";

type Props = { van?: Van; vans: Van[]; onClose: () => void; onRemoved?: () => void };

const typed = (value: number | null | undefined) => (value == null ? "" : String(value));
/** A bound as it was typed; none where nothing was. */
const bound = (text: string) => (text.trim() === "" ? null : numberFrom(text));

/** A van's name, whose it is, what may be in it, and how far it is from the others. */
export function VanSheet({ van, vans, onClose, onRemoved }: Props) {
  const people = usePeople(true);
  const keep = useKeepVan(van?.id);
  const form = useTypedForm(`van ${van?.id ?? ""}`, {
    name: van?.name ?? "",
    driver: van?.driver ?? "",
    budget: typed(van?.budget),
    shelf: typed(van?.shelf),
    minutes: Object.fromEntries(Object.entries(van?.minutes ?? {}).map(([id, value]) => [id, String(value)])),
  });
  const { name, driver, budget, shelf, minutes } = form.fields;
  const others = vans.filter((each) => each.id !== van?.id);
  const given = {
    name,
    driver: driver || null,
    budget: bound(budget),
    shelf: bound(shelf),
    minutes: Object.fromEntries(
      Object.entries(minutes)
        .filter(([, text]) => text.trim() !== "")
        .map(([id, text]) => [id, Math.round(numberFrom(text))]),
    ),
  };
  const numbers = [given.budget ?? 0, given.shelf ?? 0, ...Object.values(given.minutes)];
  const wrong = numbers.some((each) => !(each >= 0)) ? "numbers of at least 0" : "";
  return (
    <Sheet open onClose={onClose} title={van ? van.name : "Add a van"}>
      <form
        className="flex flex-col gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate(given, { onSuccess: () => (form.done(), onClose()) });
        }}
      >
        <TextField
          label="Name"
          value={name}
          maxLength={80}
          onChange={(event) => form.set({ name: event.target.value })}
        />
        <Choice label="Whose it is" value={driver} onChange={(event) => form.set({ driver: event.target.value })}>
          <option value="">nobody's</option>
          {people.data?.items.map((each) => (
            <option key={each.username} value={each.username}>
              {each.name}
            </option>
          ))}
        </Choice>
        <div className="flex flex-wrap gap-4">
          <NumberField label="Value at most" value={budget} onType={(text) => form.set({ budget: text })} />
          <NumberField label="Places at most" value={shelf} onType={(text) => form.set({ shelf: text })} />
        </div>
        {others.length > 0 && (
          <fieldset className="flex flex-col gap-2">
            <legend className="font-semibold">Minutes to the other vans, as it usually takes</legend>
            <div className="flex flex-wrap gap-4">
              {others.map((each) => (
                <NumberField
                  key={each.id}
                  label={each.name}
                  value={minutes[each.id] ?? ""}
                  onType={(text) => form.set({ minutes: { ...minutes, [each.id]: text } })}
                />
              ))}
            </div>
          </fieldset>
        )}
        <ProblemNotice problem={keep.error ?? people.error} />
        <div className="flex flex-wrap gap-3">
          <Button
            type="submit"
            kind="main"
            needs={wrong || lacking({ "its name": !name.trim() })}
            disabled={keep.isPending}
          >
            Keep it
          </Button>
          {van && <Remove van={van} onRemoved={onRemoved} />}
        </div>
      </form>
    </Sheet>
  );
}

function Remove({ van, onRemoved }: { van: Van; onRemoved?: () => void }) {
  const remove = useRemoveVan(van.id);
  const [sure, setSure] = useState(false);
  return (
    <>
      {sure ? (
        <Button disabled={remove.isPending} onClick={() => remove.mutate(undefined, { onSuccess: onRemoved })}>
          Yes, take {van.name} off the list
        </Button>
      ) : (
        <Button kind="quiet" onClick={() => setSure(true)}>
          Take it off the list
        </Button>
      )}
      <ProblemNotice problem={remove.error} />
    </>
  );
}
