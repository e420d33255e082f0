/** A worker of the benchmark: judges its part of a van's options whenever it is asked. */
import { parentPort } from 'node:worker_threads';
import { benchOf, siftOptions } from '../core/choice';
import { runToEnd } from '../core/numeric';
import { readDemo } from '../core/testing/demo';
import { must } from './benchKit';

const { system } = readDemo('lintel-pane-van-tank');
parentPort!.on('message', ({ part, parts }: { readonly part: number; readonly parts: number }) => {
  parentPort!.postMessage(runToEnd(siftOptions(must(benchOf(system)), part, parts)).tried);
});
