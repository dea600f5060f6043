// What the compiler does not see: import cycles, packages nobody declared, hooks, leftovers, lines too long to read.
import { createTypeScriptImportResolver } from "eslint-import-resolver-typescript";
import stylistic from "@stylistic/eslint-plugin";
import { importX } from "eslint-plugin-import-x";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** Where packages are declared: what a room ships in its own file, what only tests and tools use also in the root's. */
const declared = (room) => [
  {
    files: [`${room}/**/*.{ts,tsx,mjs}`],
    ignores: [`${room}/**/*.test.ts`, `${room}/testing/**`],
    rules: { "import-x/no-extraneous-dependencies": ["error", { packageDir: [folder(room)], devDependencies: false }] },
  },
  {
    files: [`${room}/**/*.test.ts`, `${room}/testing/**`],
    rules: { "import-x/no-extraneous-dependencies": ["error", { packageDir: [folder(room), import.meta.dirname] }] },
  },
];
const folder = (room) => `${import.meta.dirname}/${room}`;
/** The server's script starts what the web room ships. */
const onlyTools = {
  files: ["{bench,e2e,scripts}/**/*.{ts,mjs}", "*.{ts,mjs}"],
  rules: { "import-x/no-extraneous-dependencies": ["error", { packageDir: [import.meta.dirname, folder("web")] }] },
};

export default tseslint.config(
  { ignores: ["**/node_modules/", "**/.next/", "dist/", "data/", "out/", "**/next-env.d.ts"] },
  { linterOptions: { reportUnusedDisableDirectives: "error" } },
  {
    files: ["**/*.{ts,tsx,mjs}"],
    languageOptions: { parser: tseslint.parser, ecmaVersion: 2023, sourceType: "module" },
    plugins: { "import-x": importX, "@stylistic": stylistic, "@typescript-eslint": tseslint.plugin },
    settings: {
      "import-x/resolver-next": [
        createTypeScriptImportResolver({
          project: ["tsconfig.json", "web/tsconfig.json"],
          noWarnOnMultipleProjects: true,
        }),
      ],
      "import-x/parsers": { "@typescript-eslint/parser": [".ts", ".tsx"] },
    },
    rules: {
      // Planning that is loaded later reads the description that loads it.
      "import-x/no-cycle": ["error", { ignoreExternal: true, allowUnsafeDynamicCyclicDependency: true }],
      "import-x/no-duplicates": "error",
      "import-x/no-self-import": "error",
      "@stylistic/max-len": ["error", { code: 120, ignoreUrls: true, tabWidth: 2 }],
      "no-unreachable": "error",
      "no-useless-rename": "error",
      "no-constant-condition": ["error", { checkLoops: false }],
      "no-self-assign": "error",
      "no-dupe-else-if": "error",
      "no-fallthrough": "error",
      "no-debugger": "error",
      "prefer-const": ["error", { destructuring: "all" }],
      "max-params": ["error", 11],
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "@typescript-eslint/consistent-type-imports": ["error", { fixStyle: "inline-type-imports" }],
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-non-null-asserted-optional-chain": "error",
    },
  },
  {
    files: ["web/**/*.{ts,tsx}"],
    plugins: { "react-hooks": reactHooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "error" },
  },
  ...["core", "files", "cli", "demo", "web"].flatMap(declared),
  onlyTools,
);
