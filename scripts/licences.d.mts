export interface Lock {
  packages: Record<string, { version?: string; license?: string; dependencies?: Record<string, string> }>;
}
export function shipped(lock: Lock): string[];
export function page(lock: Lock): string;
