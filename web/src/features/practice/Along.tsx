import { answer, api, Problem } from "@/api/client";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { keepCore } from "@/with_you/core";
import { useAway } from "@/with_you/useAway";
import { useMutation } from "@tanstack/react-query";
import { newSeed } from "./api";
import { nextSeed } from "./kept";
import type { Level } from "./task";
import { LEVELS } from "./words";

/** One task of each level, and what plays them, on this device: practice for where there is no signal. */
export function Along({ seeds, onTaken }: { seeds: Record<Level, number>; onTaken: () => void }) {
  const away = useAway();
  const take = useMutation({
    mutationFn: async () => {
      await keepCore();
      let count = 0;
      for (const level of LEVELS) if (await taken(level, seeds[level])) count += 1;
      return count;
    },
    onSuccess: onTaken,
  });
  if (away)
    return <p role="status">Without a connection: the tasks that you have along can be done, and are sent later.</p>;
  return (
    <div className="flex flex-col gap-2">
      <Button className="self-start" disabled={take.isPending} onClick={() => take.mutate()}>
        {take.isPending ? "Taking them along …" : "Take one of each along (some 9 MB the first time)"}
      </Button>
      {take.isSuccess && <p role="status">{take.data} tasks are on this device.</p>}
      <ProblemNotice problem={take.error} />
    </div>
  );
}

const TRIES = 3;

/** A task of a level on this device: what is answered is kept by whoever answers without a connection. */
async function taken(level: Level, seed: number): Promise<boolean> {
  for (let tried = 0; tried < TRIES; tried += 1) {
    try {
      await answer(
        api.GET("/api/practice/task", { params: { query: { level, seed, original: "", replacement: "" } } }),
      );
      return true;
    } catch (error) {
      // this seed draws no boards: another one may
      if (!(error instanceof Problem) || error.status !== 422) throw error;
      seed = nextSeed(level, newSeed);
    }
  }
  return false;
}
