import { lacking } from "@/ui/lacking";
import { PART_NAMES, type PartName } from "./partNames";
import { BoardDrawing } from "@/drawing/BoardDrawing";
import { factorySettings, type BoardDocument } from "@/drawing/types";
import { addressOf, useBoardPictures } from "@/pictures/api";
import { BoardPictures } from "@/pictures/BoardPictures";
import { Button } from "@/ui/Button";
import { Loading, ProblemNotice } from "@/ui/notices";
import { Link, useNavigate, useParams, useSearch } from "@tanstack/react-router";
import { useState } from "react";
import { findingsUnder, useChange, useDraft, type Changing, type Draft } from "./api";
import { BehaviourPart } from "./parts/BehaviourPart";
import { ChangesPart } from "./parts/ChangesPart";
import { ChartsPart } from "./parts/ChartsPart";
import { MeaningsPart } from "./parts/MeaningsPart";
import { PlugsPart } from "./parts/PlugsPart";
import { STATE_WORDS } from "./words";

const PARTS = {
  meanings: { title: "Meanings", places: ["functions"], shown: MeaningsPart },
  charts: { title: "Charts", places: ["charts"], shown: ChartsPart },
  plugs: { title: "Plugs", places: ["connectors"], shown: PlugsPart },
  behaviour: { title: "Behaviour", places: ["behaviour"], shown: BehaviourPart },
  changes: { title: "What changes", places: [], shown: ChangesPart },
} as const;

/** A board on the bench of the workshop: its drawing on one side, one table at a time on the other. */
export function DraftPage() {
  const { draft: id } = useParams({ from: "/workshop/$draft" });
  const draft = useDraft(id);
  if (!draft.data)
    return (
      <main className="mx-auto max-w-6xl px-4 py-6">
        {draft.isPending ? <Loading what="Opening the draft" /> : <ProblemNotice problem={draft.error} />}
      </main>
    );
  return <OpenDraft draft={draft.data} offline={draft.isError ? draft.error : null} />;
}

function OpenDraft({ draft, offline }: { draft: Draft; offline: unknown }) {
  const { part = "meanings" } = useSearch({ from: "/workshop/$draft" });
  const changing = useChange(draft);
  const pictures = useBoardPictures(draft.part_number);
  const [marked, setMarked] = useState<string>();
  const Shown = PARTS[part].shown;
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-4 px-4 py-6 desk:max-w-7xl">
      <p className="text-faint">
        <Link to="/workshop" search={{}}>
          Workshop
        </Link>
      </p>
      <Head draft={draft} changing={changing} />
      <ProblemNotice problem={changing.error ?? offline} />
      <div className="grid gap-x-8 gap-y-5 desk:grid-cols-[minmax(0,2fr)_minmax(0,3fr)]">
        <div className="flex min-w-0 flex-col gap-4">
          <PartTabs draft={draft} part={part} />
          <Shown draft={draft} changing={changing} onMark={setMarked} />
        </div>
        {/* the table comes first, for it is what one works at; at a desk the drawing stands left of it */}
        <div className="flex flex-col gap-3 desk:sticky desk:top-4 desk:order-first desk:self-start">
          <BoardDrawing
            name={draft.part_number}
            document={draft.document as BoardDocument}
            elements={draft.elements}
            positions={factorySettings(draft.elements)}
            side="replacement"
            selected={marked}
            onSelect={setMarked}
            under={addressOf(pictures.data?.items.find((each) => each.under)?.id)}
          />
          <BoardPictures partNumber={draft.part_number} canAdd={draft.state === "open" || draft.state === "proposed"} />
          <Told draft={draft} />
        </div>
      </div>
    </main>
  );
}

function Head({ draft, changing }: { draft: Draft; changing: Changing }) {
  const faults = draft.findings.filter((each) => each.weight === "fault").length;
  return (
    <header className="flex flex-wrap items-baseline gap-x-5 gap-y-2">
      <h1 className="font-mono">{draft.part_number}</h1>
      <p>
        {draft.family_title}. Draft, {STATE_WORDS[draft.state]}
        {draft.note && `: “${draft.note}”`}.{" "}
        <span role="status" className={faults ? "font-semibold" : "text-faint"}>
          {changing.offline
            ? "No connection: what you typed waits here"
            : changing.pending
              ? "Saving …"
              : faults
                ? `${faults} to put right`
                : "Nothing wrong"}
        </span>
      </p>
      <p className="ml-auto flex flex-wrap gap-3">
        <Button
          needs={lacking({ "a change of yours": !draft.can_undo })}
          disabled={changing.pending}
          onClick={() => changing.change({ what: "undo" })}
        >
          Take back
        </Button>
        <a href={`/api/drafts/${draft.id}/file`} className="min-h-11 py-2.5">
          Its file
        </a>
      </p>
    </header>
  );
}

function PartTabs({ draft, part }: { draft: Draft; part: PartName }) {
  const navigate = useNavigate({ from: "/workshop/$draft" });
  return (
    <nav aria-label="Parts of the board" className="flex flex-wrap gap-x-1 border-b border-text">
      {PART_NAMES.map((name) => {
        const faults = findingsUnder(draft, ...PARTS[name].places).filter((each) => each.weight === "fault").length;
        return (
          <button
            key={name}
            type="button"
            aria-current={name === part ? "page" : undefined}
            className={`min-h-11 px-3 py-2 ${name === part ? "border-b-4 border-text font-bold" : ""}`}
            onClick={() => void navigate({ search: { part: name }, replace: true, resetScroll: false })}
          >
            {PARTS[name].title}
            {faults > 0 && <span className="ml-1.5 font-semibold"> ▲ {faults}</span>}
          </button>
        );
      })}
    </nav>
  );
}

/** Who changed what: of others first of all, for two may be at one draft. */
function Told({ draft }: { draft: Draft }) {
  if (!draft.edits.length) return null;
  return (
    <details className="border-t border-rule" open={draft.edits[0] !== undefined && !draft.edits[0].mine}>
      <summary className="min-h-11 py-2.5">
        Last changed: {draft.edits[0]?.what}, by {draft.edits[0]?.mine ? "you" : draft.edits[0]?.by}
      </summary>
      <ul className="text-sm">
        {draft.edits.slice(0, 12).map((each) => (
          <li key={each.number} className={each.undone ? "text-faint line-through" : ""}>
            {new Date(each.at).toLocaleTimeString([], { timeStyle: "short" })} {each.mine ? "you" : each.by}:{" "}
            {each.what}
          </li>
        ))}
      </ul>
    </details>
  );
}
