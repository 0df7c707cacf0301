/** Which part of the client may look at which: imports only go down, and never round. */
const steps = "^src/features/jobs/steps/([^/]+)/";
module.exports = {
  forbidden: [
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
    {
      name: "no-step-reaches-into-another",
      severity: "error",
      from: { path: steps },
      to: { path: steps, pathNot: "^src/features/jobs/steps/$1/" },
    },
    {
      name: "no-feature-reaches-into-another",
      severity: "error",
      comment: "what two features share belongs to comparison, drawing, ui or api",
      from: { path: "^src/features/([^/]+)/" },
      to: { path: "^src/features/", pathNot: "^src/features/$1/" },
    },
    {
      name: "shared-parts-lie-below-features",
      severity: "error",
      from: { path: "^src/(comparison|sketching|pictures|drawing|ui|api)/" },
      to: { path: "^src/(features|app)/" },
    },
    {
      name: "ui-and-drawing-know-no-domain",
      severity: "error",
      from: { path: "^src/(ui|drawing)/" },
      to: { path: "^src/(comparison|sketching|pictures)/" },
    },
    {
      name: "api-lies-at-the-bottom",
      severity: "error",
      from: { path: "^src/api/" },
      to: { path: "^src/(ui|drawing|comparison|sketching|pictures)/" },
    },
    { name: "nobody-needs-the-roof", severity: "error", from: { pathNot: "^src/app/" }, to: { path: "^src/app/" } },
    {
      name: "tests-stay-out-of-the-product",
      severity: "error",
      from: { pathNot: "^src/testing/" },
      to: { path: "^src/testing/" },
    },
  ],
  options: {
    exclude: { path: "\\.test\\.tsx?$" },
    doNotFollow: { path: "node_modules" },
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
  },
};
