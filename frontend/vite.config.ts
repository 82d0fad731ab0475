import optimizeLocales from "@react-aria/optimize-locales-plugin";
import react from "@vitejs/plugin-react";
import { readFileSync } from "node:fs";
import license, { type Dependency } from "rollup-plugin-license";
import { defineConfig } from "vitest/config";

const FONTS = ["atkinson-hyperlegible-mono", "atkinson-hyperlegible-next"];

/** Every package that is bundled with its licence, whole, and those of the typefaces. */
function notices(packages: Dependency[]): string {
  const fonts = FONTS.map((name) =>
    readFileSync(`node_modules/@fontsource-variable/${name}/LICENSE`, "utf-8"),
  );
  return [...packages.map((p) => p.text()), ...fonts].join("\n\n---\n\n");
}

export default defineConfig({
  base: "/static/",
  plugins: [
    { ...optimizeLocales.vite({ locales: ["en-US"] }), enforce: "pre" as const },
    // What a change does not touch is not drawn again. Says what it had to leave as it is.
    react({ compiler: { logDiagnostics: true } }),
  ],
  build: {
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    sourcemap: false,
    // What views share comes in one file: twenty small ones were asked for one by one before anything was shown.
    rollupOptions: {
      // Whose packages and fonts these are, and on what terms: shown under "?".
      plugins: [
        license({ thirdParty: { output: { file: "dist/notices.txt", template: notices } } }),
      ],
      output: { codeSplitting: { groups: [{ name: "shared", minShareCount: 2 }] } },
    },
  },
  test: {
    // The machines are noisy: a slow answer is not a wrong one.
    testTimeout: 120_000,
    environment: "jsdom",
    maxWorkers: 2,
    setupFiles: ["src/test/patience.ts"],
    globals: false,
  },
});
