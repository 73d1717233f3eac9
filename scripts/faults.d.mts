/** A row of docs/faults.md: the fault, what must happen, and `here`, or the file and name of the test that tries it. */
export interface FaultRow {
  readonly fault: string;
  readonly told: string;
  readonly test: string;
}
export function faultRows(document: string): FaultRow[];
export function passedTests(folder: string, root?: string): Set<string>;
export function untold(rows: readonly FaultRow[], passed: ReadonlySet<string>): FaultRow[];
