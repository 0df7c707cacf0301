import { lacking } from "@/ui/lacking";
import { Button } from "@/ui/Button";
import { cellsOf } from "@/ui/cells";
import { TextArea, TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useAddPicture, useReadTable } from "@/pictures/api";
import { PictureButton } from "@/pictures/PictureButton";
import { useKeptState } from "@/ui/typed";
import { useGuess, type Changing, type Draft } from "../api";

type Props = { draft: Draft; changing: Changing; onDone: () => void };

/** A chart begun with its headings: typed, pasted with all its rows, or from a file. */
export function NewChart({ draft, changing, onDone }: Props) {
  const [title, setTitle] = useKeptState("new chart title", "");
  const [text, setText] = useKeptState("new chart cells", "");
  const guess = useGuess(draft.id);
  const table = useReadTable();
  const add = useAddPicture();
  const [headings = [], ...rows] = cellsOf(text);
  const begin = () =>
    guess.mutate(
      { headings, rows },
      {
        onSuccess: (columns) =>
          changing.change(
            {
              what: "chart",
              body: {
                index: draft.charts.length,
                title: title.trim(),
                columns,
                rows,
              },
            },
            draft.version,
            () => {
              setTitle("");
              setText("");
              onDone();
            },
          ),
      },
    );
  return (
    <form
      aria-label="A new chart"
      className="flex flex-col gap-3 border-l-4 border-edge pl-3"
      onSubmit={(event) => {
        event.preventDefault();
        begin();
      }}
    >
      <TextField
        label="The leaflet’s title"
        maxLength={200}
        value={title}
        onChange={(event) => setTitle(event.target.value)}
      />
      <TextArea
        label="Its headings, and its rows where they can be pasted"
        hint="Model, Year, S1, … the first line is the headings"
        className="font-mono"
        rows={4}
        spellCheck={false}
        maxLength={200_000}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <label className="flex flex-col gap-1 text-sm text-faint">
        Or a file with commas, semicolons or tabs between
        <input
          type="file"
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          className="min-h-11"
          onChange={(event) => void event.target.files?.[0]?.text().then(setText)}
        />
      </label>
      <div className="flex flex-wrap items-center gap-3">
        <PictureButton
          words={table.isPending ? "Reading …" : "Read it from a picture of the page"}
          disabled={table.isPending}
          onPicture={(file) => {
            add.mutate({ partNumber: draft.part_number, file, of: "leaflet" });
            table.mutate(file, {
              onSuccess: ({ rows: read }) => read.length && setText(read.map((row) => row.join("\t")).join("\n")),
            });
          }}
        />
        {table.data && (
          <span role="status">
            {table.data.rows.length
              ? "Read; the picture stands beside. Hold every row against it."
              : "No ruled table was seen in it. Type or paste the rows."}
          </span>
        )}
      </div>
      <ProblemNotice problem={guess.error ?? table.error ?? add.error} />
      <Button
        kind="main"
        type="submit"
        className="self-start"
        needs={lacking({
          "a heading": !headings.some(Boolean),
          "at most 60 columns": headings.length > 60,
          "at most 500 rows": rows.length > 500,
        })}
        disabled={guess.isPending || changing.pending}
      >
        Begin the chart{rows.length > 0 && ` with ${rows.length} rows`}
      </Button>
    </form>
  );
}
