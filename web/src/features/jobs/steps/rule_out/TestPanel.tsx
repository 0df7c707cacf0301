import { Choice } from "@/ui/fields";
import { useState } from "react";
import { TestSheet } from "./TestSheet";
import type { RuleOutProps, Test } from "./types";

/** The next best test, and the way to any other one. */
export function TestPanel(props: RuleOutProps) {
  const { job, data } = props;
  const [picked, setPicked] = useState<string>();
  const best = data.next[0];
  const id = picked ?? best;
  const test = data.tests.find((each) => each.id === id);
  return (
    <section aria-labelledby="test" className="flex flex-col gap-3">
      <h3 id="test">{picked === undefined || picked === best ? "Next best test" : "Another test"}</h3>
      {!test && <p>No test that is left tells anything more.</p>}
      {test && <TestSheet key={test.id} {...props} test={test} onDone={() => setPicked(undefined)} />}
      <Choice label="Other tests" value={id ?? ""} onChange={(event) => setPicked(event.target.value)}>
        {!id && <option value="">choose one</option>}
        {[...data.tests]
          .sort((a, b) => rank(a, data.next) - rank(b, data.next))
          .map((each) => (
            <option key={each.id} value={each.id}>
              {each.title} ({each.minutes} min{each.risk === "live" ? ", live" : ""}
              {job.tests[each.id] ? ", done" : ""})
            </option>
          ))}
      </Choice>
    </section>
  );
}

function rank(test: Test, next: string[]) {
  const at = next.indexOf(test.id);
  return at < 0 ? 100 : at;
}
