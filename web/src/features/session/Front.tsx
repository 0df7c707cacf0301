import type { FormEvent, ReactNode } from "react";

type Props = { title: string; words: string; mark?: ReactNode; onSend: () => void; children: ReactNode };

/** A page before anybody is signed in: what it is, and one form. */
export function Front({ title, words, mark, onSend, children }: Props) {
  const send = (event: FormEvent) => {
    event.preventDefault();
    onSend();
  };
  return (
    <main className="mx-auto flex min-h-screen max-w-md flex-col justify-center gap-6 px-5 py-10">
      <div>
        {mark}
        <h1 className={mark ? "mt-4" : ""}>{title}</h1>
        <p className="mt-1 text-faint">{words}</p>
      </div>
      <form className="flex flex-col gap-4" onSubmit={send}>
        {children}
      </form>
    </main>
  );
}
