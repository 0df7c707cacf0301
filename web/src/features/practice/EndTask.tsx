import { Button } from "@/ui/Button";
import type { Action } from "./task";

type Props = { onAct: (action: Action) => void; needs?: string; busy?: boolean; children: string };

/** Says that a task, or a step of one, is done. */
export function EndTask({ onAct, needs, busy = false, children }: Props) {
  return (
    <Button kind="main" className="self-start" needs={needs} disabled={busy} onClick={() => onAct({ do: "done" })}>
      {children}
    </Button>
  );
}
