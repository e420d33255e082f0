/** A worker of the benchmark: judges its part of a van's options whenever it is asked. */
import { readFileSync } from 'node:fs';
import { parentPort } from 'node:worker_threads';
import { comparisonOf, sift } from '../core/choice';
import { readDocument } from '../core/file';
import { runToEnd } from '../core/numeric';
import { must } from './benchKit';

const read = readDocument(readFileSync(new URL('../demo/lintel-pane-van-tank.yesclear.json', import.meta.url), 'utf8'));
if (!read.ok) throw new Error(read.error.message);
const { system } = read.records[0]!;
parentPort!.on('message', ({ part, parts }: { readonly part: number; readonly parts: number }) => {
  const { spaces, judging } = must(comparisonOf(system, new Map()));
  parentPort!.postMessage(runToEnd(sift(spaces, judging, part, parts)).tried);
});
