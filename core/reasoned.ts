/** A number and the sentence that explains it. */
export interface Reasoned {
  value: number;
  reason: string;
}
