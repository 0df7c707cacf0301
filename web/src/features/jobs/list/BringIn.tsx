import { useSession } from "@/api/session";
import { ProblemNotice } from "@/ui/notices";
import { Link } from "@tanstack/react-router";
import { useBringIn } from "../endApi";

/** A job from another depot, brought in from its package: checked first, and kept as it stood there. */
export function BringIn() {
  const bring = useBringIn();
  if (useSession().data?.keeps_catalogue !== true) return null;
  const done = bring.data;
  return (
    <details className="border-b border-rule">
      <summary className="min-h-12 py-3">Bring in a job from another depot</summary>
      <div className="flex flex-col gap-3 pb-4">
        <label className="flex flex-col gap-1">
          <span className="font-semibold">Package (.zip)</span>
          <input
            type="file"
            accept=".zip,application/zip"
            className="min-h-11"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) bring.mutate(file);
              event.target.value = "";
            }}
          />
        </label>
        {bring.isPending && <p role="status">Checking every entry and picture …</p>}
        <ProblemNotice problem={bring.error} />
        {done && (
          <p role="status">
            {done.new ? "Brought in" : "It was here already"}:{" "}
            <Link to="/jobs/$id" params={{ id: done.id }}>
              {done.code}, {done.machine}
            </Link>{" "}
            with {done.entries} entries and {done.pictures} pictures
            {done.profiles.length > 0 && `; new profiles: ${done.profiles.join(", ")}`}.
          </p>
        )}
      </div>
    </details>
  );
}
