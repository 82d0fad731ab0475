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

/** Who imports a module, not counting what is fetched later. */
interface Graph {
  getModuleInfo: (id: string) => { isEntry: boolean; importers: string[] } | null;
}

/** Whether the first view needs a module. */
function isFirst(id: string, graph: Graph, seen = new Set<string>()): boolean {
  const found = graph.getModuleInfo(id);
  if (!found || seen.has(id)) return false;
  seen.add(id);
  return found.isEntry || found.importers.some((by) => isFirst(by, graph, seen));
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
    // What views share comes in two files: twenty small ones were asked for one by one before anything was shown. The
    // first view does not wait for what only later views share.
    rollupOptions: {
      // Whose packages and fonts these are, and on what terms: shown under "?".
      plugins: [
        license({ thirdParty: { output: { file: "dist/notices.txt", template: notices } } }),
      ],
      output: {
        codeSplitting: {
          groups: [
            {
              name: (id, graph) => (isFirst(id, graph) ? "shared" : null),
              debugName: "shared",
              minShareCount: 2,
              priority: 1,
            },
            { name: "later", minShareCount: 2 },
          ],
        },
      },
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
