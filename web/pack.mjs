// Make the core ready for the browser: compiled by the Python that runs there, beside that Python itself.
// pack.mjs SOURCES FOLDER: the archive that script/lib/pack.py wrote, and the folder that the client hands out.
import { cpSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { loadPyodide } from "pyodide";

const [sources, folder] = process.argv.slice(2);
const pyodide = dirname(fileURLToPath(import.meta.resolve("pyodide")));
const PYTHON = ["pyodide.mjs", "pyodide.asm.mjs", "pyodide.asm.wasm", "python_stdlib.zip", "pyodide-lock.json"];

const py = await loadPyodide({ indexURL: `${pyodide}/` });
const archive = readFileSync(sources);
py.unpackArchive(archive.buffer.slice(archive.byteOffset, archive.byteOffset + archive.length), "zip", {
  extractDir: "/site",
});
py.runPython(`
import compileall, os, zipfile

if not compileall.compile_dir("/site", quiet=1, legacy=True, optimize=1, stripdir="/site"):
    raise SystemExit("not all of it could be compiled")
with zipfile.ZipFile("/core.zip", "w", zipfile.ZIP_DEFLATED) as out:
    for folder, _, names in os.walk("/site"):
        for name in sorted(names):
            path = os.path.join(folder, name)
            if name.endswith((".pyc", ".json")) and "__pycache__" not in path:
                # the same bytes whenever it is made
                out.writestr(zipfile.ZipInfo(path.removeprefix("/site/")), open(path, "rb").read(), zipfile.ZIP_DEFLATED)
            elif name.endswith(".so"):
                os.rename(path, "/" + name)
`);
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
for (const name of PYTHON) cpSync(join(pyodide, name), join(folder, name));
for (const name of ["core.zip", ...py.FS.readdir("/").filter((each) => each.endsWith(".so"))])
  writeFileSync(join(folder, name.endsWith(".so") ? "pydantic_core.so" : name), py.FS.readFile(`/${name}`));
