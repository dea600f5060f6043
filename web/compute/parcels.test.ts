import { describe, expect, it } from "vitest";
import { seeded } from "@oaken/core/testing/random";
import { Receiver, Sender } from "./parcels.ts";

describe("parcels between a worker and the page", () => {
  it("bring the page exactly what was sent, each thing once while it stays in use, for any run of messages", () => {
    for (let seed = 1; seed <= 50; seed++) {
      const random = seeded(seed);
      const [sender, receiver] = [new Sender(), new Receiver()];
      const things = Array.from({ length: 8 }, (_, k) => ({ k }));
      let before = new Set<number>();
      for (let message = 0; message < 30; message++) {
        const chosen = Array.from({ length: Math.floor(6 * random()) }, () => Math.floor(8 * random()));
        const made: number[] = [];
        const parcels = chosen.map((k) =>
          sender.parcel(things[k], () => {
            made.push(k);
            return { copyOf: k };
          }),
        );
        sender.sent();
        const crossed = structuredClone(parcels);
        expect(crossed.map((p) => receiver.take(p).copyOf)).toEqual(chosen);
        receiver.taken();
        expect(made, `seed ${seed}`).toEqual([...new Set(chosen)].filter((k) => !before.has(k)));
        before = new Set(chosen);
      }
    }
  });

  it("say so when one comes empty that the page never had, as after another worker has begun", () => {
    const [sender, receiver] = [new Sender(), new Receiver()];
    const thing = {};
    const first = sender.parcel(thing, () => 1);
    sender.sent();
    receiver.take(first);
    receiver.taken();
    receiver.forget();
    expect(() => receiver.take(sender.parcel(thing, () => 1))).toThrow(/not held/);
  });
});
