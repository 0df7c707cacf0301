import { CarryView } from "@/comparison/CarryView";
import { Loading, ProblemNotice } from "@/ui/notices";
import type { Schemas } from "@/api/client";
import { Part } from "@/ui/Part";
import { useComparison, useJobBoard, usePresses, useWiring } from "../../api";
import { useLeaflet } from "../../earlyApi";
import type { StepProps } from "../../stepProps";
import { Between } from "../Between";
import { goTo, Next } from "../Next";
import { CodesToRead } from "./CodesToRead";
import { LeafletPanel } from "./LeafletPanel";
import { MeaningsPanel } from "./MeaningsPanel";
import { Notes } from "./Notes";
import { PressesPanel } from "./PressesPanel";
import { SchoolsPanel } from "./SchoolsPanel";
import { WiringPanel } from "./WiringPanel";

/** The heart: what the old positions mean, what the new board must be set to, where every wire goes, what is keyed in. */
export function CarryStep({ job, put }: StepProps) {
  const comparison = useComparison(job);
  const original = useJobBoard(job, "original");
  const replacement = useJobBoard(job, "replacement");
  const wiring = useWiring(job);
  const presses = usePresses(job);
  const leaflet = useLeaflet(job).data;
  const problem = comparison.error ?? original.error ?? replacement.error;
  if (problem) return <ProblemNotice problem={problem} />;
  if (!comparison.data || !original.data || !replacement.data) return <Loading what="Carrying the settings over" />;
  const { rows, disagreements, codes_to_read: codes } = comparison.data;
  const unreasoned = rows.filter((row) => !row.met && !job.reasons[row.id]);
  const undecided = job.school ? [] : disagreements.filter((each) => !job.decisions[each.id]);
  const done = job.steps.find((each) => each.id === "carry_over")?.state === "done";
  return (
    <div className="flex flex-col gap-5">
      {!done && comparison.data.plan && (
        <NextInCarry job={job} put={put} undecided={undecided} unread={codes} unreasoned={unreasoned} />
      )}
      <Notes job={job} comparison={comparison.data} />
      {codes.length > 0 && <CodesToRead job={job} put={put} codes={codes} />}
      <CarryView
        comparison={comparison.data}
        original={original.data}
        replacement={replacement.data}
        overrides={job.overrides}
        onOverride={
          job.closed
            ? undefined
            : (changes) =>
                Object.entries(changes).forEach(
                  ([element, after]) => void put({ target: `override.${element}`, after }),
                )
        }
        copying={false}
        reasons={job.reasons}
        onReason={job.closed ? undefined : (id, reason) => void put({ target: `reason.${id}`, after: reason || null })}
      />
      {leaflet?.tables && (
        <Part
          key={comparison.data.proposed}
          title="By the leaflet"
          status={leafletStatus(leaflet)}
          open={comparison.data.proposed === "table" || comparison.data.plan === null}
        >
          <LeafletPanel
            job={job}
            put={put}
            board={replacement.data}
            leaflet={leaflet}
            proposed={comparison.data.proposed}
          />
        </Part>
      )}
      <MeaningsPanel
        key={Object.keys(job.meanings).join()}
        job={job}
        put={put}
        boards={{ original: original.data, replacement: replacement.data }}
      />
      <div>
        <div id="schools" tabIndex={-1} className="scroll-mt-24">
          <Part
            title="The schools side by side"
            status={
              undecided.length ? `${undecided.length} to decide` : disagreements.length ? "decided" : "no disagreement"
            }
            open={disagreements.length > 0}
          >
            <SchoolsPanel job={job} put={put} comparison={comparison.data} board={replacement.data} />
          </Part>
        </div>
        <Part title="Wires" status={wiringStatus(wiring.data?.wire_sums)} open={false}>
          {wiring.error && <ProblemNotice problem={wiring.error} />}
          {wiring.data && <WiringPanel job={job} put={put} wiring={wiring.data} />}
        </Part>
        {job.together && (
          <Part
            title="Wires to the machine’s other boards"
            status={`${Object.keys(job.between).length} recorded`}
            open={Object.keys(job.between).length > 0}
          >
            <Between job={job} put={put} />
          </Part>
        )}
        <Part title="Keys" status={presses.data?.count ? `${presses.data.count} presses` : "nothing to key in"}>
          {presses.data && <PressesPanel presses={presses.data} />}
        </Part>
      </div>
      <p className="flex flex-wrap gap-4">
        <a href={`/api/jobs/${job.id}/plan.pdf`} className="min-h-11 py-2">
          The plan as one sheet (PDF)
        </a>
        <a href={`/api/jobs/${job.id}/plan.json`} className="min-h-11 py-2">
          Plan (JSON)
        </a>
        {wiring.data && (
          <a href={`/api/jobs/${job.id}/plan.csv`} className="min-h-11 py-2">
            Wires (CSV)
          </a>
        )}
      </p>
      {done && <p className="text-faint">The plan is confirmed. A change opens it again.</p>}
    </div>
  );
}

function leafletStatus({ whole, clash, asks, rows, possible }: Schemas["LeafletShown"]): string {
  if (whole) return "its row holds";
  if (rows.length + possible === 0) return "no row fits";
  if (clash.length > 0) return "its rows contradict each other";
  return asks.length === 1 ? "one answer would decide" : `${asks.length} answers would decide`;
}

type Open = { id: string; title: string }[];
type ToRead = Schemas["ComparisonShown"]["codes_to_read"];

/** Decisions first, then what the plate says, then reasons, then the plan itself. */
function NextInCarry({
  job,
  put,
  undecided,
  unread,
  unreasoned,
}: StepProps & { undecided: Open; unread: ToRead; unreasoned: Open }) {
  const more = (rest: unknown[]) => (rest.length > 1 ? ` and ${rest.length - 1} more` : "");
  const left = [
    ...undecided.slice(0, 1).map((each) => ({
      words: `the schools disagree, decide: ${each.title}${more(undecided)}.`,
      place: "schools",
    })),
    ...unread
      .slice(0, 1)
      .map((each) => ({ words: `read ${each.element} from the plate${more(unread)}.`, place: "codes" })),
    ...unreasoned.slice(0, 1).map((each) => ({
      words: `give a reason for ${each.title}${more(unreasoned)}.`,
      place: `row-${each.id}`,
    })),
  ][0];
  return (
    <Next
      job={job}
      step="carry_over"
      words={left ? left.words : "look the plan through."}
      ends={!left}
      button={left ? "Show me" : "Confirm this plan"}
      onGo={() => (left ? goTo(left.place) : void put({ target: "confirmed.carry_over", after: { note: "" } }))}
    />
  );
}

function wiringStatus(sums: Record<string, number> | undefined): string {
  if (!sums) return "";
  const told = Object.entries(sums).filter(([, count]) => count > 0);
  return told.map(([name, count]) => `${count} ${name}`).join(", ") || "no wire recorded";
}
