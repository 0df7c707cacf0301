import { Button } from "@/ui/Button";
import { ProblemNotice } from "@/ui/notices";
import { useRef, useState } from "react";
import { useLoadList, type ListName } from "./api";

type Props = { list: ListName; what: string; columns: string; replaces: boolean };

/** A list that comes in as a file and goes out as one. */
export function ListFile({ list, what, columns, replaces }: Props) {
  const load = useLoadList(list);
  const [file, setFile] = useState<File>();
  const field = useRef<HTMLInputElement>(null);
  const done = () => {
    setFile(undefined);
    if (field.current) field.current.value = "";
  };
  return (
    <div className="flex flex-col gap-2">
      <label htmlFor={`file-${list}`} className="font-semibold">
        {what}
      </label>
      <p className="text-sm text-faint">
        Columns: <code className="font-mono">{columns}</code>.{" "}
        {replaces ? "The file takes the place of the list." : "What is not in the file stays as it is."}
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <input
          ref={field}
          id={`file-${list}`}
          type="file"
          accept=".csv,text/csv"
          className="min-h-12 w-full min-w-0 border border-edge bg-raised p-2 sm:w-auto"
          onChange={(event) => setFile(event.target.files?.[0])}
        />
        <Button disabled={!file || load.isPending} onClick={() => file && load.mutate(file, { onSuccess: done })}>
          {load.isPending ? "Sending …" : "Bring it in"}
        </Button>
        <a href={`/api/stock/${list}.csv`} className="min-h-11 py-2.5">
          Take it away (CSV)
        </a>
      </div>
      {load.isSuccess && <p role="status">{load.data.rows} rows were taken in.</p>}
      <ProblemNotice problem={load.error} />
    </div>
  );
}
