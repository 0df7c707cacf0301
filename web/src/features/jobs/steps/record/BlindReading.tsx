import { ElementEditor } from "@/drawing/ElementEditor";
import type { Element, Position } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { lacking } from "@/ui/lacking";
import { Sheet } from "@/ui/Sheet";
import { useState } from "react";
import type { StepProps } from "../../stepProps";

type Props = Pick<StepProps, "put"> & { element: Element };

/** A second reading by somebody who does not see the first one. */
export function BlindReading({ put, element }: Props) {
  const [open, setOpen] = useState(false);
  const [value, setValue] = useState<Position | undefined>();
  const keep = () => {
    if (value !== undefined) void put({ target: `blind.${element.id}`, after: value });
    setOpen(false);
    setValue(undefined);
  };
  return (
    <>
      <Button onClick={() => setOpen(true)}>Read it again, blind</Button>
      <Sheet open={open} onClose={() => setOpen(false)} title={`${element.id} read again`}>
        <div className="flex flex-col gap-4">
          <p>Hand it to somebody else, or look anew. The first reading is not shown.</p>
          <ElementEditor element={element} value={value} side="original" onChange={setValue} />
          <Button
            kind="main"
            className="self-start"
            needs={lacking({ "the second reading": value === undefined })}
            onClick={keep}
          >
            Compare the two
          </Button>
        </div>
      </Sheet>
    </>
  );
}
