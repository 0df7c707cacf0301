import { numberFrom, readingFrom, readingText, timeWords } from "@/ui/numbers";
import { bandWords } from "@/drawing/Band";
import { SensorCurve } from "@/drawing/SensorCurve";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { Caution } from "@/ui/notices";
import { useTypedForm } from "@/ui/typed";
import { Does } from "../Does";
import type { RuleOutProps, Test } from "./types";

type Props = RuleOutProps & { test: Test; onDone: () => void };

const RISKS: Record<string, string> = {
  dead: "machine dead and locked off",
  "low voltage": "low voltage, machine on",
  live: "live work",
};
const NUMBER = /^[-+]?\d+([.,]\d+)?$/;

/** One test: what it costs and risks, how it is done, and what was seen. */
export function TestSheet({ job, put, data, test, onDone }: Props) {
  const known = job.tests[test.id];
  const { fields, set, done } = useTypedForm(`test ${test.id}`, {
    asFound: text(known?.as_found),
    value: readingText(known),
    atC: text(known?.at_c),
    restored: known?.restored === true,
  });
  const { asFound, value, atC, restored } = fields;
  const reading = test.reading;
  const needsTemperature = reading !== null && reading.curve !== null;
  const held = test.risk !== "dead" || data.dead;
  const ready = held && (!test.as_found || asFound.trim() !== "");
  const read = readingFrom(value);
  const canRead = read !== null && (!needsTemperature || NUMBER.test(atC.trim()));
  const keep = (more: Record<string, string | number | boolean>) => {
    const after: Record<string, string | number | boolean> = { ...more };
    if (asFound.trim()) after.as_found = asFound.trim();
    if (restored) after.restored = true;
    void put({ target: `test.${test.id}`, after });
    done();
    onDone();
  };
  const skip = (result: string) => (void put({ target: `test.${test.id}`, after: { result } }), done(), onDone());
  return (
    <div className="flex flex-col gap-4 border-l-4 border-text pl-4">
      <div>
        <p className="text-xl font-bold">{test.title}</p>
        <p className="text-faint">
          {test.minutes} minutes, {RISKS[test.risk] ?? test.risk}
          {test.bits > 0 && `, tells ${test.bits < 0.1 ? "little" : test.bits < 0.35 ? "something" : "much"}`}
        </p>
      </div>
      {test.risk === "live" && (
        <Caution title="Live work">
          Only if you are qualified and local rules allow it. Nothing else left tells as much; it can also be skipped.
        </Caution>
      )}
      {!held && (
        <Caution title="This test needs the machine dead">
          Its result is kept when the hold points under Make safe hold. It can also be skipped.
        </Caution>
      )}
      {test.risk !== "dead" && data.dead && (
        <p className="border-l-4 border-text pl-3">This test needs power: afterwards every hold point starts anew.</p>
      )}
      {test.as_found && (
        <TextField
          label={`First write down: ${test.as_found}`}
          value={asFound}
          maxLength={2000}
          onChange={(event) => set({ asFound: event.target.value })}
        />
      )}
      <Does does={test.does} />
      <ol className="list-decimal pl-6">
        {test.how.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ol>
      <p>
        Expected: <strong>{test.expected}</strong>
      </p>
      {test.events.length > 0 && (
        <ul className="font-mono text-[0.95rem]">
          {test.events.map((event) => (
            <li key={event.what}>
              {timeWords(event.at_s)}: {event.what}, within {timeWords(event.within_s)}
            </li>
          ))}
        </ul>
      )}
      {reading ? (
        <>
          {reading.curve && <SensorCurve title={reading.curve} points={reading.points} unit={reading.unit} />}
          <div className="grid gap-3 sm:grid-cols-2">
            <div className="flex flex-col gap-2">
              <TextField
                label={`Read: ${reading.quantity}, in ${reading.unit}`}
                hint={`± ${reading.uncertainty} ${reading.unit}${reading.curve ? "" : `; expected ${bandWords(reading.low, reading.high, reading.unit)}`}`}
                inputMode="decimal"
                className="font-mono text-xl"
                value={value}
                onChange={(event) => set({ value: event.target.value })}
              />
              <Button kind="quiet" className="self-start" onClick={() => set({ value: "OL" })}>
                The meter shows OL
              </Button>
            </div>
            {needsTemperature && (
              <TextField
                label="Temperature at the sensor, in °C"
                inputMode="decimal"
                className="font-mono text-xl"
                value={atC}
                onChange={(event) => set({ atC: event.target.value })}
              />
            )}
          </div>
          <Restore test={test} restored={restored} onChange={(now) => set({ restored: now })} />
          <Button
            kind="main"
            className="self-start"
            disabled={!ready || !canRead}
            onClick={() => keep({ ...read, ...(needsTemperature ? { at_c: numberFrom(atC) } : {}) })}
          >
            Keep this reading
          </Button>
          {held && !canRead && (
            <p className="text-sm">
              {read === null ? "Enter the reading first." : "Enter the temperature at the sensor as well."}
            </p>
          )}
        </>
      ) : (
        <>
          <Restore test={test} restored={restored} onChange={(now) => set({ restored: now })} />
          <div className="flex flex-wrap gap-2">
            {test.results.map((result) => (
              <Button key={result.id} kind="main" disabled={!ready} onClick={() => keep({ result: result.id })}>
                {result.title}
              </Button>
            ))}
          </div>
        </>
      )}
      {held && !ready && <p className="text-sm">Write down first how it stood; then the result can be kept.</p>}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => skip("skipped")}>Skip</Button>
        <Button onClick={() => skip("cannot do")}>Cannot do it</Button>
        <Button onClick={() => skip("not sure")}>Not sure</Button>
        {known && (
          <Button kind="quiet" onClick={() => void put({ target: `test.${test.id}`, after: null })}>
            Take the result back
          </Button>
        )}
      </div>
      <p className="text-sm text-faint">Source: {test.source}</p>
    </div>
  );
}

function Restore({ test, restored, onChange }: { test: Test; restored: boolean; onChange: (now: boolean) => void }) {
  if (!test.undo) return null;
  return (
    <label className="flex min-h-11 items-center gap-3">
      <input
        type="checkbox"
        className="size-6 shrink-0"
        checked={restored}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span>Put back: {test.undo}</span>
    </label>
  );
}

function text(value: unknown) {
  return value === undefined || value === null ? "" : String(value);
}
