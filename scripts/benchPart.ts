/** A worker of the benchmark, built as the application's own: judges a van's options, or its part of them, whenever it is asked. */
import { parentPort } from 'node:worker_threads';
import { benchOf, searchOf, siftOptions } from '../core/choice';
import type { System } from '../core/file';
import { runToEnd } from '../core/numeric';
import { must } from './benchKit';

/** What it is asked: a part of so many, or the whole search with what it recommends. */
export type Asked = { readonly system: System; readonly parts: number; readonly part: number } | { readonly system: System };

parentPort!.on('message', (asked: Asked) => {
  const bench = must(benchOf(asked.system));
  if ('parts' in asked) runToEnd(siftOptions(bench, asked.part, asked.parts));
  else searchOf(bench);
  parentPort!.postMessage('done');
});
