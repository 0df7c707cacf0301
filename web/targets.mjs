// Writes src/api/targets.ts from the server's OpenAPI document: where each target of a job stands on the sheet.
import { readFileSync, writeFileSync } from "node:fs";

const document = JSON.parse(readFileSync("../docs/openapi.json", "utf8"));
const values = document.components.schemas.EntryValues;
writeFileSync(
  "src/api/targets.ts",
  `/** Made from the server's OpenAPI document by \`npm run types\`; not edited by hand. */

/** Every kind of target: the part of a job's sheet in which it stands, and whether it takes a name after a dot. */
export const TARGETS = ${JSON.stringify(values["x-targets"])} as const;

/** What is kept beside a value: who, when and how; nobody sends it. */
export const KEPT_BESIDE: readonly string[] = ${JSON.stringify(values["x-kept-beside"])};
`,
);
