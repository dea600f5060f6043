import { expose } from "comlink";

/** For tests: a worker that runs in the test itself and offers what it is given, until somebody ends it. */
export class Puppet {
  ended = false;
  onerror: ((e: { message: string; preventDefault(): void }) => void) | null = null;
  onmessageerror: (() => void) | null = null;
  private readonly channel = new MessageChannel();

  constructor(work: object) {
    expose(work, this.channel.port2);
    this.channel.port1.start();
  }

  postMessage = (message: unknown, transfer: Transferable[] = []): void =>
    this.channel.port1.postMessage(message, transfer as never[]);
  addEventListener = (type: string, hear: EventListener): void => this.channel.port1.addEventListener(type, hear);
  removeEventListener = (type: string, hear: EventListener): void => this.channel.port1.removeEventListener(type, hear);
  terminate(): void {
    this.ended = true;
    this.channel.port1.close();
  }
  /** It ends, or does not load. */
  fail = (): void => this.onerror?.({ message: "", preventDefault: () => {} });
}

/** Messages between page and worker take a few turns of the event loop, which no clock of the test's holds up. */
export async function delivered(): Promise<void> {
  for (let k = 0; k < 20; k++) await new Promise((r) => setImmediate(r));
}
