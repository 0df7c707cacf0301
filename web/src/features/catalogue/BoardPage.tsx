import { addressOf } from "@/pictures/api";
import { BoardDrawing } from "@/drawing/BoardDrawing";
import type { Machine } from "@/drawing/machine";
import { StateDiagram } from "@/drawing/StateDiagram";
import { factorySettings, type BoardDocument } from "@/drawing/types";
import { BoardPictures } from "@/pictures/BoardPictures";
import { Loading, ProblemNotice } from "@/ui/notices";
import { Link, useNavigate, useParams, useSearch } from "@tanstack/react-router";
import { useFamily } from "@/api/families";
import { EVERY_BOARD, useBoard } from "./api";
import { Meanings, type FunctionNode } from "./Meanings";
import { Retire } from "./Retire";
import { StandsFor } from "./StandsFor";
import { Revisions } from "./Revisions";
import { Uses } from "./Uses";
import { WholeProfile } from "./WholeProfile";

/** A board's page: drawing, settings and what they mean, behaviour, revisions. */
export function BoardPage() {
  const { partNumber } = useParams({ from: "/catalogue/$partNumber" });
  const { revision } = useSearch({ from: "/catalogue/$partNumber" });
  const navigate = useNavigate({ from: "/catalogue/$partNumber" });
  const board = useBoard(partNumber, revision);
  const family = useFamily(board.data?.family);
  if (board.isPending)
    return (
      <Shell>
        <Loading what="Reading the board" />
      </Shell>
    );
  if (!board.data)
    return (
      <Shell>
        <ProblemNotice problem={board.error} />
      </Shell>
    );
  const { document, elements } = board.data;
  const titles = titlesOf(family.data?.document);
  const factory = factorySettings(elements);
  const unknown = elements.length > 0 && Object.keys(factory).length === 0;
  const behaviour = document.behaviour as (Machine & { machines?: Machine[] }) | undefined;
  const codes = (document.codes ?? []) as { shown: string; meaning: string; look_at?: string; clears?: string }[];
  const look = capitalised((document as BoardDocument).look?.colour);
  const drawn = (document.standing as { layout?: { worth?: string } } | undefined)?.layout?.worth === "drawn";
  const notes = Object.values((document.notes ?? {}) as Record<string, unknown>).map(String);
  return (
    <Shell>
      <p className="text-faint">
        <Link to="/catalogue" search={EVERY_BOARD}>
          Catalogue
        </Link>
      </p>
      <h1 className="font-mono">{board.data.part_number}</h1>
      <p>
        {board.data.maker}, {board.data.title}. {board.data.status === "current" ? "Still made" : "Discontinued"}.{" "}
        {board.data.family_title}.
        {Array.isArray(document.also_marked) && ` Also marked ${document.also_marked.join(", ")}.`}
      </p>
      {board.data.withdrawn && <p className="border-l-4 border-text pl-3 font-semibold">{board.data.withdrawn}</p>}
      {board.data.standing && (
        <div className="border-l-4 border-text pl-3">
          <p>
            <strong>Its settings: {board.data.standing}.</strong> What they mean and how it behaves is said only where
            it stands below.
          </p>
          {board.data.doubts.length > 0 && (
            <ul aria-label="Not known yet">
              {board.data.doubts.map((each) => (
                <li key={each}>Not known: {each}.</li>
              ))}
            </ul>
          )}
        </div>
      )}
      {notes.map((note) => (
        <p key={note} className="border-l-4 border-text pl-3">
          {note}
        </p>
      ))}
      <p className="flex flex-wrap gap-4">
        <a href={`/api/board-file/${encodeURIComponent(partNumber)}`} className="min-h-11 py-2">
          The board’s file
        </a>
        <a href={`/api/families/${encodeURIComponent(board.data.family)}/file`} className="min-h-11 py-2">
          The family’s file
        </a>
        <Link to="/workshop" search={{ take: board.data.part_number }} className="min-h-11 py-2">
          Complete it in the workshop
        </Link>
        <Link to="/bench" search={{ original: board.data.part_number }} className="min-h-11 py-2">
          On the bench as original
        </Link>
      </p>
      <div className="grid gap-x-10 gap-y-5 desk:grid-cols-2">
        <div className="desk:sticky desk:top-4 desk:self-start">
          <BoardDrawing
            name={board.data.part_number}
            document={document as BoardDocument}
            elements={elements}
            positions={factory}
            side="original"
            under={addressOf(board.data.under)}
          />
          <BoardPictures partNumber={board.data.part_number} canAdd={false} />
          <p className="text-sm text-faint">
            {look ? `${look} board, drawn` : "Drawn"}
            {unknown ? "; nobody knows its factory settings" : " as it leaves the maker"}
            {drawn ? "; its places are tidy, nobody measured them" : ""}. A square pin is pin 1; ribs on a socket are
            its key.
          </p>
        </div>
        <div className="flex min-w-0 flex-col gap-5">
          <section>
            <h2>Settings and what they mean</h2>
            <Meanings
              elements={elements}
              functions={document.functions as Record<string, FunctionNode>}
              titles={titles.names}
              units={titles.units}
            />
          </section>
          <Uses partNumber={board.data.part_number} />
          <StandsFor partNumber={board.data.part_number} />
        </div>
      </div>
      <section className="flex flex-col gap-4">
        <h2>Behaviour</h2>
        {behaviour ? (
          (behaviour.machines ?? [behaviour]).map((machine, index) => (
            <StateDiagram key={index} machine={machine} titles={titles.names} />
          ))
        ) : (
          <p className="text-faint">
            Nobody has written down how this board behaves. Its settings can be carried over; a twin check stays
            unproved.
          </p>
        )}
      </section>
      <WholeProfile document={document} charts={board.data.charts} titles={titles.names} />
      {codes.length > 0 && (
        <section>
          <h2>Codes</h2>
          <ul>
            {codes.map((code) => (
              <li key={code.shown} className="border-b border-rule py-2">
                <strong>{code.shown}</strong>: {code.meaning}. {code.look_at && `Look at ${code.look_at}. `}
                {code.clears && `Clears: ${code.clears}.`}
              </li>
            ))}
          </ul>
        </section>
      )}
      <Retire board={board.data} />
      <Revisions
        partNumber={partNumber}
        shown={board.data.revision}
        onShow={(number) => void navigate({ search: { revision: number }, resetScroll: false })}
      />
    </Shell>
  );
}

function Shell({ children }: { children: React.ReactNode }) {
  return <main className="mx-auto flex max-w-3xl flex-col gap-5 px-4 py-6 desk:max-w-6xl">{children}</main>;
}

function capitalised(word: unknown): string {
  const text = typeof word === "string" ? word : "";
  return text.charAt(0).toUpperCase() + text.slice(1);
}

type Named = { id: string; title?: string; unit?: string; type?: string };

function titlesOf(document: Record<string, unknown> | undefined) {
  const all = ["inputs", "outputs", "functions", "signals", "facts"].flatMap(
    (key) => (document?.[key] ?? []) as Named[],
  );
  return {
    names: Object.fromEntries(all.map((each) => [each.id, each.title ?? each.id])),
    units: Object.fromEntries(all.map((each) => [each.id, each.unit ?? (each.type === "duration" ? "s" : "")])),
  };
}
