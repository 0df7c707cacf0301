import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  resolve: { alias: { "@": new URL("./src", import.meta.url).pathname } },
  test: {
    environment: "jsdom",
    include: ["src/**/*.test.{ts,tsx}"],
    setupFiles: ["src/testing/setup.ts"],
    restoreMocks: true,
    // every test waits for what it asserts, not for a clock
    testTimeout: 120_000,
    environmentOptions: { jsdom: { url: "http://127.0.0.1:8800/" } },
  },
});
