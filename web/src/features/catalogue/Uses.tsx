import { useUses } from "./api";

/** What the depot’s jobs teach about a board: places that are hard to read, and positions that mean nothing by its profile. */
export function Uses({ partNumber }: { partNumber: string }) {
  const uses = useUses(partNumber).data;
  if (!uses || uses.taught.length + uses.said.length === 0) return null;
  return (
    <section aria-label="What jobs found">
      <h2>What jobs found</h2>
      <ul>
        {uses.taught.map((each) => (
          <li key={each.what + each.of}>
            {each.what === "unread" ? (
              <>
                <span className="font-mono">{each.of}</span> could not be read
              </>
            ) : (
              <>{each.title} stood at positions that mean nothing by this profile</>
            )}{" "}
            in {each.jobs} of {uses.jobs} {uses.jobs === 1 ? "job" : "jobs"}
          </li>
        ))}
        {uses.said.map((each) => (
          <li key={each.job + each.title}>
            {each.by} said in {each.job}: <strong>{each.title}</strong>, {each.words}
          </li>
        ))}
      </ul>
    </section>
  );
}
