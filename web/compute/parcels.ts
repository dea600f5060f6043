/** A large thing on its way from a worker to the page: its number, and itself where the page does not have it yet. */
export interface Parcel<T> {
  n: number;
  thing?: T;
}

/** The worker's side: every large thing crosses once, and again only after the page has let go of it. */
export class Sender {
  /** numbers of what things were made from */
  private readonly numbers = new WeakMap<object, number>();
  /** what the page has: all that was in the last message */
  private there = new Set<number>();
  private sending = new Set<number>();
  private next = 1;

  /**
   * @param from what the thing is made from: the same things are made from the same
   * @param make makes it; not called where the page has it
   */
  parcel<T>(from: object, make: () => T): Parcel<T> {
    let n = this.numbers.get(from);
    if (n === undefined) this.numbers.set(from, (n = this.next++));
    const isNew = !this.there.has(n) && !this.sending.has(n);
    this.sending.add(n);
    return isNew ? { n, thing: make() } : { n };
  }

  /** The message is complete: the page keeps what was in it and nothing else. */
  sent(): void {
    this.there = this.sending;
    this.sending = new Set();
  }
}

/** The page's side. */
export class Receiver {
  private held = new Map<number, unknown>();
  private taking = new Map<number, unknown>();

  /** @throws Error where the worker takes the page to have what it does not: the two belong together */
  take<T>({ n, thing }: Parcel<T>): T {
    const known = thing ?? this.taking.get(n) ?? this.held.get(n);
    if (known === undefined) throw new Error(`Parcel ${n} came empty and is not held.`);
    this.taking.set(n, known);
    return known as T;
  }

  /** All of a message is taken. */
  taken(): void {
    this.held = this.taking;
    this.taking = new Map();
  }

  /** Another worker begins from nothing. */
  forget(): void {
    this.held.clear();
    this.taking.clear();
  }
}
