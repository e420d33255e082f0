/** Starts listening beside the page; where nobody has paired a meter, nothing is asked of any server. */
export function listen(): void {
  new Worker(new URL('./listening.ts', import.meta.url), { type: 'module' });
}
