import js from "@eslint/js";
import reactHooks from "eslint-plugin-react-hooks";
import globals from "globals";
import tseslint from "typescript-eslint";

// a feature is a domain of its own: what two of them share belongs to comparison, drawing or ui
const features = ["session", "jobs", "catalogue", "references", "depot", "bench"];

export default tseslint.config(
  { ignores: ["dist", "src/api/schema.d.ts"] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  { languageOptions: { globals: globals.browser } },
  { plugins: { "react-hooks": reactHooks }, rules: reactHooks.configs.recommended.rules },
  {
    rules: {
      "no-restricted-exports": ["error", { restrictDefaultExports: { direct: true } }],
      "@typescript-eslint/no-explicit-any": "error",
      // a name that starts with _ is taken out of an object on purpose
      "@typescript-eslint/no-unused-vars": ["error", { varsIgnorePattern: "^_", argsIgnorePattern: "^_", destructuredArrayIgnorePattern: "^_" }],
    },
  },
  ...features.map((feature) => ({
    files: [`src/features/${feature}/**`],
    rules: {
      "no-restricted-imports": [
        "error",
        { patterns: features.filter((other) => other !== feature).map((other) => `@/features/${other}/*`) },
      ],
    },
  })),
);
