import { readdirSync } from "node:fs";
import a11y from "eslint-plugin-jsx-a11y";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

const FEATURES = readdirSync(new URL("./src/features", import.meta.url));

/** What a feature may not import, by any way that leads there: another feature, or the frame around all. */
function alone(feature) {
  const others = FEATURES.filter((name) => name !== feature).join("|");
  const ways = `^(@/features/|@/app/|(\\.\\./)+app/|(\\.\\./)+features/|(\\.\\./)+(${others})(/|$))`;
  return {
    files: [`src/features/${feature}/**`],
    rules: {
      "no-restricted-imports": ["error", { patterns: [{ regex: ways, message: "Features stand alone." }] }],
    },
  };
}

const upwards = (where, ways, message) => ({
  files: [where],
  rules: {
    "no-restricted-imports": [
      "error",
      { paths: ["react"].filter(() => where.includes("lib")), patterns: [{ regex: ways, message }] },
    ],
  },
});

export default tseslint.config(
  { ignores: ["src/api/schema.ts", "*.js", "*.ts"] },
  ...tseslint.configs.recommendedTypeChecked,
  { languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } } },
  a11y.flatConfigs.strict,
  hooks.configs.flat.recommended,
  {
    files: ["src/**"],
    ignores: ["src/lib/browser/browserStore.ts", "src/**/*.test.ts"],
    rules: {
      "no-restricted-globals": [
        "error",
        ...["localStorage", "sessionStorage"].map((name) => ({ name, message: "browserStore also works without." })),
      ],
    },
  },
  ...FEATURES.map(alone),
  upwards("src/ui/**", "(^@/|\\.\\./)(features|app)/", "Shared parts know no page."),
  upwards("src/lib/**", "(^@/|\\.\\./)(features|app|ui)/", "Logic knows no page and no component."),
  {
    // A server in memory answers at once, and throws what a test tells it to.
    files: ["src/**/*.test.ts"],
    rules: {
      "@typescript-eslint/require-await": "off",
      "@typescript-eslint/only-throw-error": "off",
    },
  },
);
