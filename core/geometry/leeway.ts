/**
 * The answer to a yes or no about a place, with how far it holds, mm: more than 0 is yes, anything else no, and the
 * answer stays the same at least so far, its sign left out, in every direction.
 */
export type Leeway = number;
