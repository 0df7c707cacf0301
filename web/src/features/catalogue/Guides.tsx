import { answer, api } from "@/api/client";
import { useQuery } from "@tanstack/react-query";

const KINDS: Record<string, string> = { "rule-out": "Rule-out data", nameplates: "Nameplate schemes" };

/** Rule-out data and nameplate schemes: to be taken as files, edited and loaded again. */
export function Guides() {
  const guides = useQuery({
    queryKey: ["guides"],
    queryFn: () => answer(api.GET("/api/guides", { params: { query: { size: 100 } } })),
  });
  if (!guides.data?.items.length) return null;
  return (
    <section aria-labelledby="guides">
      <h2 id="guides">Rule-out data and nameplates</h2>
      <p className="text-sm text-faint">Take the file, change it, and load it again above: it gets a new revision.</p>
      <ul className="border-t border-rule">
        {guides.data.items.map((guide) => (
          <li key={`${guide.kind}-${guide.name}`} className="border-b border-rule">
            <a
              href={`/api/guide-file/${guide.kind}/${encodeURIComponent(guide.name)}`}
              className="flex min-h-11 flex-wrap items-center gap-x-3 py-2"
            >
              {KINDS[guide.kind] ?? guide.kind}, {guide.name}
              <span className="text-sm text-faint">revision {guide.revision}</span>
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}
