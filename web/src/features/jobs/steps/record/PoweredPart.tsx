import type { Schemas } from "@/api/client";
import { ElementEditor } from "@/drawing/ElementEditor";
import type { Element } from "@/drawing/types";
import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { useReadPort } from "../../api";
import type { StepProps } from "../../stepProps";
import { DraftField } from "../DraftField";
import { OverPort } from "../OverPort";
import { RowsField } from "../RowsField";
import { Segments } from "@/ui/Segments";

type Props = StepProps & { record: Schemas["RecordShown"]; elements: Element[] };

/** What only a board with power can tell: parameters, programs, counters, fault history; by eye or over its port. */
export function PoweredPart({ job, put, record, elements }: Props) {
  return (
    <>
      <div className="flex flex-wrap items-center gap-3">
        <span>Does the old board still answer?</span>
        <Segments
          label="Does the old board still answer?"
          choices={[
            ["yes", "Yes"],
            ["no", "No"],
          ]}
          value={job.answers ?? ""}
          disabled={job.closed}
          onChange={(value) => void put({ target: "answers", after: value })}
        />
      </div>
      {job.answers === "no" && (
        <p>Nothing more can be asked of it. What a sticker or a list says can still be entered; the rest as ?.</p>
      )}
      {record.port && !job.closed && (
        <OverPort instead="Read the settings on the board by eye.">
          <PortRead job={job} put={put} />
        </OverPort>
      )}
      {elements.map((element) => (
        <div key={element.id}>
          <h4 className="mb-1 font-semibold">
            <span className="font-mono">{element.id}</span> {element.title}
            {job.how[element.id] && <span className="font-normal text-faint"> ({job.how[element.id]})</span>}
          </h4>
          <ElementEditor
            element={element}
            value={job.found[element.id]}
            side="original"
            disabled={job.closed}
            onChange={(value) => void put({ target: `found.${element.id}`, after: value, read_how: "by eye" })}
          />
        </div>
      ))}
      {record.remembered.length > 0 && (
        <>
          <h4 className="font-semibold">What it remembers and a new one does not</h4>
          {record.remembered.map((each) =>
            each.rows ? (
              <RowsField
                key={each.id}
                label={each.what}
                hint={each.read}
                items={each.items}
                value={job.kept[each.id] ?? ""}
                saved={each.value ?? ""}
                disabled={job.closed}
                onSave={(text) => void put({ target: `kept.${each.id}`, after: text || null, read_how: "by eye" })}
              />
            ) : (
              <DraftField
                key={each.id}
                label={each.unit ? `${each.what}, in ${each.unit}` : each.what}
                hint={[each.read, each.enter ? `Entered again: ${each.enter}` : "For the record only."]
                  .filter(Boolean)
                  .join(" ")}
                value={job.kept[each.id] ?? ""}
                disabled={job.closed}
                onSave={(text) => void put({ target: `kept.${each.id}`, after: text || null, read_how: "by eye" })}
              />
            ),
          )}
        </>
      )}
    </>
  );
}

/** Ask over the service port; what it says is shown beside what was read by eye, and taken one by one. */
function PortRead({ job, put }: StepProps) {
  const port = useReadPort(job);
  const open = port.data?.values.filter((each) => each.there === null || each.differs) ?? [];
  const take = (value: Schemas["PortValue"]) =>
    put(
      value.target.startsWith("found.")
        ? { target: `found.${nameOf(value.target)}`, after: value.value, read_how: "read over the port" }
        : { target: `kept.${nameOf(value.target)}`, after: String(value.value), read_how: "read over the port" },
    );
  return (
    <div className="flex flex-col gap-2 border-l-4 border-rule pl-3">
      <Button className="self-start" disabled={port.isPending} onClick={() => port.mutate()}>
        {port.isPending ? "Asking the board …" : "Read over the service port"}
      </Button>
      {port.error && <ProblemNotice problem={port.error} />}
      {port.data && (
        <>
          {port.data.identity && (
            <p>
              It calls itself <span className="font-mono">{port.data.identity}</span>.
            </p>
          )}
          {port.data.fault && (
            <p role="alert" className="font-semibold">
              {port.data.fault}
            </p>
          )}
          <ul>
            {port.data.values.map((value) => {
              const now = nowAt(job, value.target) ?? value.there;
              const same = now === value.value;
              return (
                <li key={value.target} className="flex flex-wrap items-center gap-x-3 border-b border-rule py-1.5">
                  <span>{value.title}</span>
                  <span className="font-mono text-lg">{String(value.value)}</span>
                  {same ? (
                    <span className="text-faint">agrees with what was read</span>
                  ) : (
                    <>
                      {now !== null && (
                        <strong>
                          by eye: <span className="font-mono">{String(now)}</span>
                        </strong>
                      )}
                      <Button
                        aria-label={`${now === null ? "Take it" : "Take this instead"}: ${value.title}`}
                        onClick={() => void take(value)}
                      >
                        {now === null ? "Take it" : "Take this instead"}
                      </Button>
                    </>
                  )}
                </li>
              );
            })}
          </ul>
          {open.some((each) => each.there === null) && (
            <Button
              className="self-start"
              onClick={() =>
                open
                  .filter((each) => nowAt(job, each.target) === null && each.there === null)
                  .forEach((each) => void take(each))
              }
            >
              Take all that nobody read yet
            </Button>
          )}
        </>
      )}
    </div>
  );
}

function nowAt(job: StepProps["job"], target: string): string | number | null {
  const name = nameOf(target);
  return (target.startsWith("found") ? job.found[name] : job.kept[name]) ?? null;
}

function nameOf(target: string): string {
  return target.slice(target.indexOf(".") + 1);
}
