import { Link } from "@tanstack/react-router";
import type { Job } from "../api";
import { useEarlier } from "../endApi";
import { STEP_NAMES } from "@/ui/stepNames";
import { clock } from "@/ui/times";

/** Other open jobs on the same machine, in sight on every page: what each says of the supply, and where that cannot be. */
export function AlsoOpen({ job }: { job: Job }) {
  const others = useEarlier(job).data?.also_open ?? [];
  if (job.closed || others.length === 0) return null;
  const mine = job.power === "off" ? "off" : job.energised ? "on" : null;
  return (
    <ul aria-label="Also open on this machine">
      {others.map((other) => {
        const clash = mine !== null && other.supply !== null && mine !== other.supply;
        return (
          <li key={other.id} className={clash ? "hatched my-2 px-3 py-2" : "border-b border-rule py-1.5"}>
            <Link to="/jobs/$id" params={{ id: other.id }}>
              {other.code}
            </Link>{" "}
            is open on this machine too{other.original && `, for ${other.original}`} (
            {STEP_NAMES[other.step] ?? other.step}
            ). {other.supply === "off" && `It has the machine locked off (${other.by}, ${clock(other.at)}).`}
            {other.supply === "on" && `It says that the supply is on (${other.by}, ${clock(other.at)}).`}
            {clash && (
              <strong className="block">
                One of the two is wrong, or somebody is at work there. Go and look; nothing goes on here or there before
                the supply is said alike in both.
              </strong>
            )}
          </li>
        );
      })}
    </ul>
  );
}
