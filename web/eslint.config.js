import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["src/api/schema.ts"] },
  ...tseslint.configs.recommended,
  hooks.configs.flat.recommended,
  {
    files: ["src/features/**"],
    rules: {
      "no-restricted-imports": [
        "error",
        { patterns: [{ group: ["@/features/*", "@/app/*"], message: "Features stand alone." }] },
      ],
    },
  },
  {
    files: ["src/lib/**"],
    rules: { "no-restricted-imports": ["error", { paths: ["react"], patterns: ["@/ui/*"] }] },
  },
);
