/** The core, as it runs on the server, in a worker of its own: it is loaded once, ahead of its use. */
import type { PyodideAPI } from "pyodide";

declare const CORE: string;
type Asked = { id: number; call: string; args: string[] };
type Begin = { signal: Int32Array | null };
type Bag = Record<string, (...args: string[]) => unknown>;
type Known = { toJs: () => unknown; destroy: () => void };

const SETUP = `
import importlib.util, sys
sys.path.insert(0, "/core.zip")

class Compiled:
    """Finds the one module that is no Python."""
    @staticmethod
    def find_spec(name, path=None, target=None):
        if name == "pydantic_core._pydantic_core":
            return importlib.util.spec_from_file_location(name, "/pydantic_core.so")

sys.meta_path.insert(0, Compiled)
`;

/** Where the page writes that what is being computed is not wanted any more. */
let signal: Int32Array | null = null;

async function load(): Promise<Bag> {
  const bytes = async (name: string) => {
    const response = await fetch(CORE + name);
    if (!response.ok) throw new Error(`${name} cannot be had: answer ${response.status}`);
    return new Uint8Array(await response.arrayBuffer());
  };
  const [{ loadPyodide }, archive, compiled] = await Promise.all([
    import(/* @vite-ignore */ `${CORE}pyodide.mjs`) as Promise<{ loadPyodide: (given: object) => Promise<PyodideAPI> }>,
    bytes("core.zip"),
    bytes("pydantic_core.so"),
  ]);
  const py = await loadPyodide({ indexURL: CORE });
  py.FS.writeFile("/core.zip", archive);
  py.FS.writeFile("/pydantic_core.so", compiled);
  py.runPython(SETUP);
  if (signal) py.setInterruptBuffer(signal);
  return py.pyimport("twinshown.with_you.bag") as unknown as Bag;
}

const bag = load();
let dead = false;
void bag.catch(() => (dead = true));

self.onmessage = async ({ data }: MessageEvent<Asked | Begin>) => {
  if ("signal" in data) {
    signal = data.signal;
    return;
  }
  try {
    const call = (await bag)[data.call];
    // what was meant for an earlier call says nothing of this one
    if (signal) Atomics.store(signal, 0, 0);
    const found = call?.(...data.args);
    const answer = isKnown(found) ? found.toJs() : found;
    if (isKnown(found)) found.destroy();
    self.postMessage({ id: data.id, answer });
  } catch (error) {
    const interrupted = error instanceof Error && (error as { type?: string }).type === "KeyboardInterrupt";
    self.postMessage({ id: data.id, fault: String(error), interrupted, dead });
  }
};

function isKnown(found: unknown): found is Known {
  return typeof found === "object" && found !== null && "toJs" in found;
}
