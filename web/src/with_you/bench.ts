/** The pair on the bench, played in this browser: an input that is dragged is answered before it is let go. */
import { answer, api, Problem, type Schemas } from "@/api/client";
import { core, inTurn, keepCore, loadCore, onCoreGone } from "./core";

type Play = Schemas["PlayGiven"];
/** The pair whose boards the core has; none while it is being loaded. */
let ready = "";
let wanted = "";
onCoreGone(() => (ready = wanted = ""));

const nameOf = ({ original, replacement }: Play["pair"]) => JSON.stringify([original, replacement]);

/** Have a pair at hand. Until it is, and where the core cannot be had, the depot's server plays it. */
export async function bringToBench(pair: Play["pair"], family: string): Promise<void> {
  const name = nameOf(pair);
  if (wanted === name) return;
  wanted = name;
  try {
    const files = await Promise.all([
      text(api.GET("/api/families/{code}/file", { params: { path: { code: family } }, parseAs: "text" })),
      ...[pair.original, pair.replacement].map((part_number) =>
        text(api.GET("/api/board-file/{part_number}", { params: { path: { part_number } }, parseAs: "text" })),
      ),
    ]);
    await keepCore();
    loadCore();
    await inTurn(async () => {
      if (wanted !== name) return;
      await core.putInPair(name, ...(files as [string, string, string]));
      ready = name;
    });
  } catch {
    // the server goes on playing it
    if (wanted === name) wanted = "";
  }
}

/** A scenario on a pair; what is not wanted any more when its turn comes is not played. */
export async function playPair(given: Play, signal: AbortSignal): Promise<Schemas["PlayShown"]> {
  const name = nameOf(given.pair);
  if (ready !== name) return answer(api.POST("/api/bench/play", { body: given, signal }));
  const [status, body] = await inTurn(() => {
    signal.throwIfAborted();
    return core.playPair(name, JSON.stringify(given));
  });
  const told = JSON.parse(body) as Problem & Schemas["PlayShown"];
  if (status === 200) return told;
  throw new Problem(status, told.title, told.detail, told.faults);
}

const text = async (call: Parameters<typeof answer>[0]) => String(await answer(call));
