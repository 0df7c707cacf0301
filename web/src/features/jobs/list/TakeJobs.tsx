import type { Schemas } from "@/api/client";
import { useSession } from "@/api/session";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { takeAlong } from "@/with_you/taking";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

/** Takes the jobs of a list along, one after another: those that are to be worked on where there is no connection. */
export function TakeJobs({ jobs }: { jobs: Schemas["JobLine"][] }) {
  const person = useSession().data?.username ?? "";
  const queries = useQueryClient();
  const open = jobs.filter((job) => !job.closed);
  const [done, setDone] = useState(0);
  const take = useMutation({
    mutationFn: async () => {
      for (const [index, { id }] of open.entries()) {
        setDone(index);
        await takeAlong(person, id, true);
      }
      setDone(open.length);
    },
    onSettled: () => void queries.invalidateQueries({ queryKey: ["along"] }),
  });
  if (open.length === 0) return null;
  return (
    <div className="flex flex-wrap items-center gap-3">
      <Button disabled={take.isPending} onClick={() => take.mutate()}>
        Take these {open.length} along
      </Button>
      {take.isPending && (
        <p role="status">
          {done} of {open.length} are with you
        </p>
      )}
      {take.isSuccess && <p role="status">All of them are with you.</p>}
      <ProblemNotice problem={take.error} />
    </div>
  );
}
