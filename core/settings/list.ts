import { type Field, type Gauge, resolve, type Resolved, type Setting, type Settings } from "./fields.ts";

/** What a field of value V says of itself, beside its key, label and type; S are the settings named before it. */
interface Says<C, S, K extends string, V extends Setting> {
  help?: string;
  step?: number;
  tool?: string;
  more?: boolean;
  when?(settings: S): boolean;
  auto(context: C, settings: S): { value: V; reason: string };
  consequence?(value: V, context: C, settings: S & Record<K, V>): string;
}
interface SaysNumber<C, S, K extends string> extends Says<C, S, K, number> {
  min?: number;
  max?: number;
  slider?: boolean;
  gauge?(value: number, context: C, settings: S): Gauge;
}
interface SaysText<C, S, K extends string> extends Says<C, S, K, string> {
  /** one as a hand would set it */
  example: string;
  drawn?: "curve" | "words" | "lines";
  across?: string;
  check?(text: string): void;
}
interface SaysChoice<C, S, K extends string, V extends string> extends Says<C, S, K, V> {
  options: readonly { value: V; label: string }[];
}

/**
 * Fields one after another, with the type S of the settings that they describe: a key that no field has does not
 * compile, and no value needs a cast. A field reads those before it, since its automatic value is found after theirs.
 * N is what a shared list wants to stand after.
 */
export class FieldList<C, S = object, N = object> {
  /** tells the settings' type, and holds nothing */
  declare readonly settings: S;
  declare readonly needs: N;
  constructor(readonly all: readonly Field<C>[]) {}

  length<K extends string>(key: K, label: string, says: SaysNumber<C, S, K>) {
    return this.add<K, number>(key, label, "length", says);
  }
  area<K extends string>(key: K, label: string, says: SaysNumber<C, S, K>) {
    return this.add<K, number>(key, label, "area", says);
  }
  number<K extends string>(key: K, label: string, says: SaysNumber<C, S, K>) {
    return this.add<K, number>(key, label, "number", says);
  }
  share<K extends string>(key: K, label: string, says: SaysNumber<C, S, K>) {
    return this.add<K, number>(key, label, "share", says);
  }
  angle<K extends string>(key: K, label: string, says: SaysNumber<C, S, K>) {
    return this.add<K, number>(key, label, "angle", says);
  }
  feed<K extends string>(key: K, label: string, says: SaysNumber<C, S, K>) {
    return this.add<K, number>(key, label, "feed", says);
  }
  speed<K extends string>(key: K, label: string, says: SaysNumber<C, S, K>) {
    return this.add<K, number>(key, label, "speed", says);
  }
  switch<K extends string>(key: K, label: string, says: Says<C, S, K, boolean>) {
    return this.add<K, boolean>(key, label, "switch", says);
  }
  text<K extends string>(key: K, label: string, says: SaysText<C, S, K>) {
    return this.add<K, string>(key, label, "text", says);
  }
  choice<K extends string, const V extends string>(key: K, label: string, says: SaysChoice<C, S, K, V>) {
    return this.add<K, V>(key, label, "choice", says);
  }
  /** The fields of another list after these, where these hold what it needs. */
  with<T, M>(other: FieldList<C, T, M> & (S extends M ? unknown : never)): FieldList<C, S & T, N> {
    return new FieldList<C, S & T, N>([...this.all, ...other.all]);
  }
  /** Every field's value, the user's where there is one, with its reason. */
  resolve(own: Settings, context: C): { values: S; resolved: Record<string, Resolved> } {
    const { values, resolved } = resolve(this.all, own, context);
    return { values: values as S, resolved };
  }
  private add<K extends string, V extends Setting>(
    key: K,
    label: string,
    type: Field["type"],
    says: Says<C, S, K, V>,
  ): FieldList<C, S & Record<K, V>, N> {
    return new FieldList<C, S & Record<K, V>, N>([...this.all, { key, label, type, ...says } as unknown as Field<C>]);
  }
}

/** Begins a list of fields whose automatic values may look at C, and at settings N that stand before it. */
export const fieldsFor = <C, N extends object = object>() => new FieldList<C, N, N>([]);

/** The settings that a list of fields describes. */
export type SettingsOf<L> = L extends { settings: infer S } ? S : never;
