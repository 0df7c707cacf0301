import type { Job } from "../../api";

/** The papers, each as a file; the seal is what the cabinet label carries. */
export function Papers({ job, seal }: { job: Job; seal: string }) {
  const files: [string, string, string][] = [
    ["Job sheet, A4", "sheet.pdf?paper=A4", "for the office"],
    ["Job sheet, letter", "sheet.pdf?paper=letter", "for the office"],
    ...(job.left
      ? [["Cabinet label", "label.pdf", "62 × 100 mm, inside the cabinet"] as [string, string, string]]
      : []),
    ["Customer’s page, A4", "customer.pdf?paper=A4", "in plain words"],
    ["Customer’s page, letter", "customer.pdf?paper=letter", "in plain words"],
    ["Job sheet, JSON", "sheet.json", "everything as data"],
    ["Whole job, package", "package.zip", "with pictures and profiles, for another depot; twin verify checks it"],
  ];
  return (
    <>
      <ul>
        {files.map(([name, file, what]) => (
          <li key={file} className="border-b border-rule">
            <a href={`/api/jobs/${job.id}/${file}`} className="inline-block min-h-11 py-2.5">
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
