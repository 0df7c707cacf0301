import { forgetToken } from "@/api/client";
import { closeOutbox } from "@/api/outbox";
import { cleanup } from "@testing-library/react";
import { IDBFactory } from "fake-indexeddb";
import "fake-indexeddb/auto";
import { afterEach, beforeEach, vi } from "vitest";

beforeEach(async () => {
  await closeOutbox();
  globalThis.indexedDB = new IDBFactory();
  localStorage.clear();
  forgetToken();
});

afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
