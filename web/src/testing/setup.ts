import { forgetToken } from "@/api/client";
import { closeOutbox } from "@/api/outbox";
import { cleanup, configure } from "@testing-library/react";
import { IDBFactory } from "fake-indexeddb";
import "fake-indexeddb/auto";
import { afterEach, beforeEach, vi } from "vitest";

// how long something may stay away, not how fast it must come
configure({ asyncUtilTimeout: 60_000 });

beforeEach(async () => {
  await closeOutbox();
  globalThis.indexedDB = new IDBFactory();
  localStorage.clear();
  sessionStorage.clear();
  forgetToken();
});

afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
