/** Runs steps to their end where nobody looks on. */
export function runToEnd<T>(steps: Generator<unknown, T>): T {
  let next = steps.next();
  while (!next.done) next = steps.next();
  return next.value;
}
