import type { Schemas } from "@/api/client";
import { DraftField } from "../DraftField";
import type { StepProps } from "../../stepProps";

type Props = StepProps & { codes: Schemas["ComparisonShown"]["codes_to_read"] };

/** Codes of the new board that stand on the machine’s plate: what the board is made with is no answer. */
export function CodesToRead({ job, put, codes }: Props) {
  const keep = (fact: string, text: string) => {
    if (!text.trim()) return;
    void put(
      fact === "serial"
        ? { target: "serial", after: text.trim(), reason: "stands so on the plate" }
        : { target: `fact.${fact}`, after: { value: text.trim(), source: "plate" } },
    );
  };
  return (
    <div id="codes" tabIndex={-1} className="flex scroll-mt-24 flex-col gap-3 border-l-4 border-text pl-3">
      {codes.map((each) => (
        <DraftField
          key={each.element}
          label={`${each.title}, as the plate has it`}
          hint={
            each.plate === null
              ? `The new board is told it (${each.element}, ${each.places} places).`
              : `The ${each.places} places of ${each.element} do not fit ${each.plate}. Look again, or set ${each.element} by hand.`
          }
          value={each.plate ?? ""}
          disabled={job.closed}
          onSave={(text) => keep(each.fact, text)}
        />
      ))}
    </div>
  );
}
