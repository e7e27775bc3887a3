import { describe, expect, it, vi } from "vitest";

const keeping = vi.hoisted(() => ({ done: () => {}, failed: () => {} }));

vi.mock("./device", () => ({
  keptEntries: async () => [],
  keepEntry: () =>
    new Promise<void>((resolve, reject) => {
      keeping.done = resolve;
      keeping.failed = reject;
    }),
}));
vi.stubGlobal("addEventListener", () => {});
vi.stubGlobal("localStorage", { getItem: () => "a device" });
vi.stubGlobal("fetch", () => new Promise(() => {}));

const { outbox } = await import("./outbox");
const at = { group: 1, round: 1, entry: 1, set: 1, bout: 1 };

describe("what waits to be sent", () => {
  it("is told to be kept on the device only once it is", async () => {
    const kept = outbox.put("a session", at, null);
    expect(outbox.snapshot()).toMatchObject({ state: "keeping", waiting: [{ sessionId: "a session" }] });
    keeping.done();
    await kept;
    expect(outbox.snapshot().state).toBe("kept");
  });

  it("is never told to be kept where the device cannot", async () => {
    const kept = outbox.finish("a session", "2026-03-04T18:00:00Z");
    keeping.failed();
    await expect(kept).rejects.toBeUndefined();
    expect(outbox.snapshot().state).toBe("keeping");
  });
});
