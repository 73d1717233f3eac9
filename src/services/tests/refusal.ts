/** Why work was refused, as "422 Choose another name."; "done" if it wasn't. */
export const refusal = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (error: { status: number; message: string; problems?: { message: string }[] }) =>
      `${error.status} ${error.problems?.[0]?.message ?? error.message}`,
  );
