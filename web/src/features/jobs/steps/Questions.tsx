import { numberFrom } from "@/ui/numbers";
import type { Schemas } from "@/api/client";
import { Button } from "@/ui/Button";
import { TextField } from "@/ui/fields";
import { useState } from "react";
import type { StepProps } from "../stepProps";

type Question = Schemas["QuestionAsked"];

/** What would have to be true, as questions to answer on the machine. */
export function Questions({ job, put, questions }: StepProps & { questions: Question[] }) {
  if (questions.length === 0) return null;
  return (
    <section aria-label="To find out on the machine" className="flex flex-col gap-3 border-y border-text py-3">
      <p className="font-semibold">To find out on the machine</p>
      {questions.map((question) => (
        <Answer
          key={question.fact}
          question={question}
          disabled={job.closed}
          onAnswer={(value) => void put({ target: `fact.${question.fact}`, after: { value, source: "seen" } })}
        />
      ))}
    </section>
  );
}

type Props = { question: Question; disabled: boolean; onAnswer: (value: string | number | boolean) => void };

function Answer({ question, disabled, onAnswer }: Props) {
  const [text, setText] = useState("");
  const wanted: unknown = question.wanted;
  const number =
    typeof wanted === "number" || (typeof wanted === "object" && wanted !== null && !Array.isArray(wanted));
  if (typeof wanted === "boolean")
    return (
      <div className="flex flex-wrap items-center gap-3">
        <span className="grow">{question.words.replace(/: (yes|no)$/, "?")}</span>
        <Button disabled={disabled} onClick={() => onAnswer(true)}>
          yes
        </Button>
        <Button disabled={disabled} onClick={() => onAnswer(false)}>
          no
        </Button>
      </div>
    );
  const choices = Array.isArray(wanted) ? (wanted as (string | number)[]) : typeof wanted === "string" ? [wanted] : [];
  const value = number ? numberFrom(text) : text.trim();
  const usable = text.trim() !== "" && (!number || Number.isFinite(value));
  return (
    <div className="flex flex-wrap items-end gap-3">
      <div className="grow">
        <TextField
          label={question.words}
          inputMode={number ? "decimal" : "text"}
          value={text}
          disabled={disabled}
          maxLength={200}
          onChange={(event) => setText(event.target.value)}
        />
      </div>
      {choices.map((choice) => (
        <Button key={String(choice)} disabled={disabled} onClick={() => onAnswer(choice)}>
          {choice}
        </Button>
      ))}
      <Button disabled={disabled || !usable} onClick={() => onAnswer(value)}>
        Keep
      </Button>
    </div>
  );
}
