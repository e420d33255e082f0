/**
 * Work of which only the newest is worth doing: one at a time, and while one is under way only the last that was asked
 * waits. The work tells of its own failures.
 */
export function newest<T>(work: (asked: T) => Promise<void>): (asked: T) => void {
  let next: { readonly asked: T } | null = null;
  let busy = false;
  async function run(): Promise<void> {
    if (busy) return;
    busy = true;
    while (next) {
      const { asked } = next;
      next = null;
      await work(asked);
    }
    busy = false;
  }
  return (asked) => {
    next = { asked };
    void run();
  };
}
