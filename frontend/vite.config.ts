import optimizeLocales from "@react-aria/optimize-locales-plugin";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

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
