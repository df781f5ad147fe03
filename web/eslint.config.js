import jsxA11y from "eslint-plugin-jsx-a11y";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["dist", "**/*.gen.d.ts"] },
  ...tseslint.configs.recommended,
  jsxA11y.flatConfigs.recommended,
  reactHooks.configs.flat.recommended,
  {
    rules: {
      "max-len": ["error", { code: 120, ignoreUrls: true }],
      "react-hooks/exhaustive-deps": "error",
      "jsx-a11y/no-autofocus": ["error", { ignoreNonDOM: true }],
    },
  },
);
