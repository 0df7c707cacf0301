import type { Schemas } from "@/api/client";
import { useFamilies } from "@/api/families";
import { Button } from "@/ui/Button";
import { Sheet } from "@/ui/Sheet";
import { useState } from "react";
import { SketchForm } from "./SketchForm";
import type { SketchStart } from "./useSketch";

type Props = { start: SketchStart; words?: string; onKept: (board: Schemas["BoardCard"]) => void };

/** Where no board is found: sketch it. What was typed so far comes along. */
export function SketchSheet({ start, words = "Sketch it", onKept }: Props) {
  const [open, setOpen] = useState(false);
  const kinds = useFamilies(open).data?.items;
  return (
    <>
      <Button className="self-start" onClick={() => setOpen(true)}>
        {words}
      </Button>
      {open && kinds && (
        <Sheet open onClose={() => setOpen(false)} title="A board that nobody entered">
          <SketchForm
            start={start}
            families={kinds}
            onKept={(board) => {
              setOpen(false);
              onKept(board);
            }}
          />
        </Sheet>
      )}
    </>
  );
}
