import type { Job } from "../../api";

/** The papers, each as a file; the seal is what the cabinet label carries. */
export function Papers({ job, seal }: { job: Job; seal: string }) {
  const mine = `/api/jobs/${job.id}`;
  const files: [string, string, string][] = [
    ["Job sheet, A4", `${mine}/sheet.pdf?paper=A4`, "for the office"],
    ["Job sheet, letter", `${mine}/sheet.pdf?paper=letter`, "for the office"],
    ...labels(job),
    ["Customer’s page, A4", `${mine}/customer.pdf?paper=A4`, "in plain words"],
    ["Customer’s page, letter", `${mine}/customer.pdf?paper=letter`, "in plain words"],
    ["Job sheet, JSON", `${mine}/sheet.json`, "everything as data"],
    [
      "Whole job, package",
      `${mine}/package.zip`,
      "with pictures and profiles, for another depot; twin verify checks it",
    ],
  ];
  return (
    <>
      <ul>
        {files.map(([name, file, what]) => (
          <li key={file} className="border-b border-rule">
            <a href={file} className="inline-block min-h-11 py-2.5">
              {name}
            </a>{" "}
            <span className="text-faint">{what}</span>
          </li>
        ))}
      </ul>
      <p>
        Seal <span className="font-mono text-lg">{seal}</span>{" "}
        <span className="text-faint">
          of {job.entry_count} entries: it changes with every one, and with any change.
        </span>
      </p>
    </>
  );
}

const LABEL = "62 × 100 mm, inside the cabinet";

/** A label for each board that was fitted. */
function labels(job: Job): [string, string, string][] {
  if (!job.together) return job.left ? [["Cabinet label", `/api/jobs/${job.id}/label.pdf`, LABEL]] : [];
  return job.together.sheets
    .filter((each) => each.proved && each.replacement)
    .map((each) => [`Cabinet label, ${each.title}`, `/api/jobs/${each.id}/label.pdf`, LABEL]);
}
