import { InkMark } from "@/ui/inks";
import { Part } from "@/ui/Part";
import { useLeaflet, useTakeAlong } from "../../earlyApi";
import type { StepProps } from "../../stepProps";
import { Questions } from "../Questions";

const WHY: Record<string, string> = {
  kit: "with the board",
  lead: "for the wires",
  companion: "changed along with it",
  drill: "",
};

/** What to have at hand and how the board would be set, before anybody opens the machine. */
export function TakeAlong({ job, put }: StepProps) {
  const asks = useLeaflet(job).data?.asks ?? [];
  const found = useTakeAlong(job).data;
  if (!job.replacement || !found) return null;
  const count = found.lines.reduce((sum, each) => sum + each.count, 0);
  return (
    <Part title="To take along" status={count ? `${count} thing${count === 1 ? "" : "s"}` : "nothing but the board"}>
      <ul aria-label="To take along">
        {found.lines.map((each) => (
          <li key={`${each.why} ${each.what}`} className="border-b border-rule py-1.5">
            {each.count} × {each.what} <span className="text-faint">{WHY[each.why]}</span>
            {each.unknown.length > 0 && `, needed or not by ${each.unknown.join(", ")}`}
          </li>
        ))}
      </ul>
      {found.positions && (
        <p className="flex flex-wrap items-center gap-2">
          As far as is known now it is set
          {Object.entries(found.positions).map(([name, value]) => (
            <InkMark key={name} side="replacement">
              {name} {value}
            </InkMark>
          ))}
          <span className="text-faint">{found.basis}</span>
        </p>
      )}
      {!found.positions && <p>How it is set is not known yet{asks.length > 0 && "; its leaflet asks first"}.</p>}
      {!found.positions && <Questions job={job} put={put} questions={asks} />}
    </Part>
  );
}
