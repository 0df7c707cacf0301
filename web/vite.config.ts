import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { readFileSync, readdirSync } from "node:fs";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";

/** Where the core for the browser lies: in a folder that is called after what is in it (script/lib/build.sh). */
function coreFolder(): string {
  try {
    return `/static/core/${readdirSync(new URL("public/core", import.meta.url))[0]}/`;
  } catch {
    return "/static/core/none/";
  }
}
/** The version as the core has it. */
function versionOfCore(): string {
  const source = readFileSync(new URL("../core/twincore/__init__.py", import.meta.url), "utf8");
  return /VERSION = "(.*)"/.exec(source)?.[1] ?? "";
}
const CORE = coreFolder();

export default defineConfig({
  base: "/static/",
  define: { CORE: JSON.stringify(CORE), VERSION: JSON.stringify(`${versionOfCore()}, ${CORE.split("/")[3]}`) },
  plugins: [
    react(),
    tailwindcss(),
    VitePWA({
      strategies: "injectManifest",
      srcDir: "src/app",
      filename: "device.ts",
      injectRegister: false,
      manifest: false,
      injectManifest: {
        globPatterns: ["assets/**", "icon*", "*.webmanifest", "index.html", "early.js"],
        globIgnores: ["**/*.gz"],
        modifyURLPrefix: { "": "/static/" },
        maximumFileSizeToCacheInBytes: 4_000_000,
      },
    }),
  ],
  resolve: { alias: { "@": new URL("./src", import.meta.url).pathname } },
  build: { assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  worker: { format: "es" },
  server: { proxy: { "/api": "http://127.0.0.1:8800" } },
});
