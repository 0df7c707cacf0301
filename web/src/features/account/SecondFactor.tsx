import { lacking } from "@/ui/lacking";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { ProblemNotice } from "@/ui/notices";
import { useState } from "react";
import { useSecondFactor, useTakeAway } from "./api";

/** A code besides the password: offered, taken into use with a first code, and taken away with the password. */
export function SecondFactor({ inUse }: { inUse: boolean }) {
  const { offer, take } = useSecondFactor();
  const codes = take.data?.codes;
  return (
    <section className="flex flex-col gap-3">
      <h2>A code besides the password</h2>
      {codes && <WrittenDown codes={codes} />}
      {inUse ? (
        <TakeAway />
      ) : (
        <>
          <p>Whoever learns your password cannot sign in without the device that shows the code.</p>
          {!offer.data && (
            <Button className="self-start" disabled={offer.isPending} onClick={() => offer.mutate()}>
              Set up a device
            </Button>
          )}
          {offer.data && <SetUp {...offer.data} onCode={(code) => take.mutate(code)} waits={take.isPending} />}
          <ProblemNotice problem={offer.error ?? take.error} />
        </>
      )}
    </section>
  );
}

type Offer = { secret: string; picture: string; waits: boolean; onCode: (code: string) => void };

function SetUp({ secret, picture, waits, onCode }: Offer) {
  const [code, setCode] = useState("");
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        onCode(code);
      }}
    >
      <p>
        Let the device’s program for codes read this, or type the letters into it. Then enter the code that it shows.
      </p>
      <img src={picture} alt="The secret, to be read by the device" className="size-52 bg-white" />
      <p className="font-mono break-all">{secret.replace(/(.{4})/g, "$1 ").trim()}</p>
      <div className="grid items-end gap-3 sm:grid-cols-[12rem_auto] sm:justify-start">
        <TextField
          label="The code it shows"
          inputMode="numeric"
          autoComplete="one-time-code"
          maxLength={12}
          value={code}
          onChange={(event) => setCode(event.target.value)}
        />
        <Button
          kind="main"
          type="submit"
          needs={lacking({ "the code that the device shows": !code.trim() })}
          disabled={waits}
        >
          Take it into use
        </Button>
      </div>
    </form>
  );
}

function WrittenDown({ codes }: { codes: string[] }) {
  return (
    <div role="status" className="flex flex-col gap-2 border-l-4 border-text bg-raised px-4 py-3">
      <p className="font-semibold">In use. Write these down now; they are not shown again.</p>
      <p>Each is good once, where the device is not at hand.</p>
      <ul className="grid grid-cols-2 gap-x-6 font-mono sm:grid-cols-5">
        {codes.map((each) => (
          <li key={each}>{each}</li>
        ))}
      </ul>
    </div>
  );
}

function TakeAway() {
  const away = useTakeAway();
  const [password, setPassword] = useState("");
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        away.mutate(password);
      }}
    >
      <p>You are asked for a code of your device when you sign in.</p>
      <div className="grid items-end gap-3 sm:grid-cols-[18rem_auto] sm:justify-start">
        <TextField
          label="Your password"
          type="password"
          autoComplete="current-password"
          maxLength={200}
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
        <Button type="submit" disabled={!password || away.isPending}>
          Ask for no code any more
        </Button>
      </div>
      <ProblemNotice problem={away.error} />
    </form>
  );
}
