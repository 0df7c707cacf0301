import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { Empty, Loading, ProblemNotice } from "@/ui/notices";
import { Pager } from "@/ui/Pager";
import { Segments } from "@/ui/Segments";
import { SketchSheet } from "@/sketching/SketchSheet";
import { Link, useNavigate, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import { AskedByJobs } from "./AskedByJobs";
import { Boxes } from "./Boxes";
import { Sketches } from "./Sketches";
import { useDrafts, useOpenDraft, useSiblings } from "./api";
import { called, STATE_WORDS } from "./words";

/** What the depot's workshop works on, and the way in for another board. */
export function WorkshopPage() {
  const [live, setLive] = useState(true);
  const [page, setPage] = useState(1);
  const drafts = useDrafts(live, page);
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6 desk:max-w-6xl">
      <h1>Workshop</h1>
      <p className="max-w-prose">
        Boards are completed here from their leaflets: what positions mean, charts, plugs, how they behave. A draft is
        seen by this depot; once it is published, jobs work with it.
      </p>
      <AskedByJobs />
      <TakeIn />
      <section className="flex flex-col gap-3">
        <div className="flex flex-wrap items-baseline justify-between gap-3">
          <h2>Drafts</h2>
          <Segments
            label="Which drafts"
            choices={[
              ["live", "worked on"],
              ["done", "done with"],
            ]}
            value={live ? "live" : "done"}
            onChange={(value) => {
              setLive(value === "live");
              setPage(1);
            }}
          />
        </div>
        <ProblemNotice problem={drafts.error} />
        {drafts.isPending && <Loading what="Reading the drafts" />}
        {drafts.data?.total === 0 && (
          <Empty>
            {live ? "Nothing is worked on. Take a board in above." : "No draft was published or put away yet."}
          </Empty>
        )}
        {drafts.data && drafts.data.total > 0 && (
          <ul className="border-t border-rule" aria-label="Drafts">
            {drafts.data.items.map((each) => (
              <li key={each.id} className="border-b border-rule">
                <Link
                  to="/workshop/$draft"
                  params={{ draft: each.id }}
                  search={{}}
                  className="flex min-h-12 flex-wrap items-baseline gap-x-4 py-2.5 no-underline"
                >
                  <span className="font-mono font-semibold">{each.part_number}</span>
                  <span>{called(each)}</span>
                  <span className="text-faint">{each.family_title}</span>
                  <span className="ml-auto text-sm text-faint">
                    {STATE_WORDS[each.state]}, {each.touched_by},{" "}
                    {new Date(each.touched_at).toLocaleString([], { dateStyle: "medium", timeStyle: "short" })}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        )}
        {drafts.data && <Pager {...drafts.data} onPage={setPage} />}
      </section>
      <Sketches />
      <Boxes />
    </main>
  );
}

/** A board of the catalogue taken in by its number; one that nobody entered is sketched first. */
function TakeIn() {
  const { take: asked = "" } = useSearch({ from: "/workshop" });
  const [search, setSearch] = useState(asked);
  const found = useSiblings(search.trim(), "", search.trim() !== "");
  const open = useOpenDraft();
  const navigate = useNavigate();
  const take = (partNumber: string) =>
    open.mutate(partNumber, {
      onSuccess: (draft) => void navigate({ to: "/workshop/$draft", params: { draft: draft.id }, search: {} }),
    });
  const nothing = search.trim() !== "" && found.data?.total === 0;
  return (
    <section className="flex flex-col gap-3 border-y border-rule py-4">
      <h2>Take a board in</h2>
      <div className="max-w-md">
        <TextField
          label="Number, title or maker"
          type="search"
          className="font-mono"
          spellCheck={false}
          maxLength={80}
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
      </div>
      <ProblemNotice problem={open.error ?? found.error} />
      {search.trim() && found.data && found.data.total > 0 && (
        <ul className="flex flex-wrap gap-2" aria-label="Boards found">
          {found.data.items.map((each) => (
            <li key={each.part_number}>
              <Button disabled={open.isPending} onClick={() => take(each.part_number)}>
                <span className="font-mono font-semibold">{each.part_number}</span> {each.maker}
              </Button>
            </li>
          ))}
        </ul>
      )}
      {nothing && <p>No board of this number is in the catalogue. Put down what can be seen of it first.</p>}
      <SketchSheet
        key={search}
        words={nothing ? "Sketch it" : "Sketch a board that nobody entered"}
        start={{ marking: search.trim(), family: null }}
        onKept={(board) => take(board.part_number)}
      />
    </section>
  );
}
