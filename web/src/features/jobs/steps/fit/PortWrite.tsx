import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { useWritePort } from "../../endApi";
import type { StepProps } from "../../stepProps";

/** Write the plan over the port; what reads back as written is kept as read back. */
export function PortWrite({ job, put }: StepProps) {
  const write = useWritePort(job);
  const done = write.data;
  const send = async () => {
    const answer = await write.mutateAsync().catch(() => null);
    if (!answer || answer.fault) return;
    for (const [name, value] of Object.entries(answer.values))
      void put({ target: `readback.${name}`, after: { value }, read_how: "read over the port" });
  };
  return (
    <>
      <p>Every setting is written, read back and compared. If one does not read back as written, all are put back.</p>
      {!job.closed && (
        <Button kind="main" className="self-start" disabled={write.isPending} onClick={() => void send()}>
          {write.isPending ? "Writing …" : "Write the settings"}
        </Button>
      )}
      <ProblemNotice problem={write.error} />
      {done && (
        <p role="status" className={done.fault ? "font-semibold" : ""}>
          {done.fault
            ? `${done.fault} ${
                done.undone === true
                  ? "The settings from before stand again, seen by reading them."
                  : done.undone === false
                    ? "The settings from before could not be put back. Read the board by eye before it runs."
                    : "Nothing was written."
              }`
            : `Written and read back: ${Object.entries(done.values)
                .map(([name, value]) => `${name} ${value}`)
                .join(", ")}.`}
        </p>
      )}
    </>
  );
}
