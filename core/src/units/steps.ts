/** Works something out in one go that can be worked out in steps, with time for others in between. */
export function inOneGo<T>(steps: Generator<unknown, T>): T {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}
