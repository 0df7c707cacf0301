import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Choice, TextField } from "@/ui/fields";
import { useKeptState } from "@/ui/typed";
import type { Changing, Draft } from "../api";
import { WORTHS } from "../words";

type Props = { draft: Draft; changing: Changing; part: "functions" | "charts" | "connectors" | "behaviour" };

/** Where a part of the board is from: what its word is worth wherever the board stands. */
export function Source({ draft, changing, part }: Props) {
  const said = draft.sources.find((each) => each.part === part);
  const [fields, setFields] = useKeptState<{ worth: string; what: string; page: string } | null>(
    `source of ${part}`,
    null,
  );
  if (!fields)
    return (
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className={said ? "text-faint" : ""}>
          {said
            ? `By ${WORTHS.find(([worth]) => worth === said.worth)?.[1] ?? said.worth}${said.what ? `: ${said.what}` : ""}${said.page ? `, page ${said.page}` : ""}${said.who ? ` (${said.who}${said.on ? `, ${said.on}` : ""})` : ""}.`
            : "Nobody said yet where this is from."}
        </span>
        <Button
          kind="quiet"
          onClick={() => setFields({ worth: said?.worth ?? "leaflet", what: said?.what ?? "", page: said?.page ?? "" })}
        >
          Say where it is from
        </Button>
      </p>
    );
  const keep = () => {
    const source = { what: fields.what.trim(), ...(fields.page.trim() ? { page: fields.page.trim() } : {}) };
    changing.change({
      what: "place",
      body: { path: ["board", "standing", part], after: { worth: fields.worth, sources: [source] } },
    });
    setFields(null);
  };
  return (
    <form
      className="grid items-end gap-3 border-l-4 border-edge pl-3 sm:grid-cols-[1fr_2fr_5rem_auto]"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <Choice
        label="It is"
        value={fields.worth}
        onChange={(event) => setFields({ ...fields, worth: event.target.value })}
      >
        {WORTHS.map(([worth, words]) => (
          <option key={worth} value={worth}>
            {words}
          </option>
        ))}
      </Choice>
      <TextField
        label="Title and date"
        maxLength={200}
        value={fields.what}
        onChange={(event) => setFields({ ...fields, what: event.target.value })}
      />
      <TextField
        label="Page"
        maxLength={20}
        value={fields.page}
        onChange={(event) => setFields({ ...fields, page: event.target.value })}
      />
      <Button kind="main" type="submit" needs={lacking({ "where it is from": !fields.what.trim() })}>
        Keep
      </Button>
    </form>
  );
}
