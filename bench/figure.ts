/** One line of a benchmark: a value beside a reference measured in the same run on the same work (docs/performance.md). */
export interface Figure {
  readonly bench: string;
  readonly value: number;
  readonly unit: string;
  readonly reference: { readonly what: string; readonly value: number };
  readonly goal: string;
  readonly met: boolean;
}

const rounded = (value: number) => Number(value.toPrecision(3));

export function print(figure: Figure): void {
  const { value, reference } = figure;
  const ratio = rounded(value / reference.value);
  console.log(
    JSON.stringify({
      ...figure,
      value: rounded(value),
      reference: { ...reference, value: rounded(reference.value) },
      ratio,
    }),
  );
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? NaN;
}

export async function timed(work: () => Promise<unknown>): Promise<number> {
  const begun = performance.now();
  await work();
  return (performance.now() - begun) / 1000;
}
