interface Lock {
  readonly packages: Readonly<
    Record<string, { readonly version?: string; readonly license?: string; readonly dev?: boolean }>
  >;
}
export const ALLOWED: Readonly<Record<string, string>>;
export function shipped(lock: Lock): Map<string, string[]>;
export function licencesDocument(lock: Lock): string;
