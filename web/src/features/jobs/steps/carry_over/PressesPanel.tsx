import type { Schemas } from "@/api/client";

/** What is keyed in, from the factory's state, with what must be seen after each press. */
export function PressesPanel({ presses }: { presses: Schemas["PressesShown"] }) {
  return (
    <>
      {presses.why_not && <p className="text-faint">{presses.why_not}</p>}
      {presses.panels.map((panel, place) => (
        <section key={place} aria-label={panel.title}>
          <h4 className="font-semibold">
            {panel.title}{" "}
            <span className="font-normal text-faint">
              sets {panel.sets.join(", ")} in {panel.count} presses
            </span>
          </h4>
          <table className="w-full max-w-xl text-left">
            <thead>
              <tr className="border-b border-text">
                <th scope="col">Press</th>
                <th scope="col">Must then show</th>
              </tr>
            </thead>
            <tbody>
              {panel.presses.map((press, index) => (
                <tr key={index} className="border-b border-rule">
                  <td className="py-1.5">
                    {press.do && <span className="block">{press.do}</span>}
                    {press.asks && <span className="block text-sm text-faint">{press.asks}</span>}
                    {press.key && (
                      <span className="border border-edge bg-raised px-2 font-mono text-lg">{press.key}</span>
                    )}
                    {press.times > 1 && <strong> {press.times} times</strong>}
                    {press.hold_s > 0 && ` hold ${press.hold_s} s`}
                  </td>
                  <td className="py-1.5 font-mono text-xl">{press.shows}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
      {presses.unasked.length > 0 && (
        <p>
          With these answers the board never asks for {presses.unasked.join(", ")}: there it stays as the maker set it.
        </p>
      )}
      {presses.by_hand.length > 0 && <p>Set by hand on the board: {presses.by_hand.join(", ")}.</p>}
      {!presses.why_not && presses.panels.length === 0 && presses.by_hand.length === 0 && (
        <p>The board leaves the maker as it is needed here.</p>
      )}
    </>
  );
}
