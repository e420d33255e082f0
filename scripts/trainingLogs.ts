/**
 * Holds the log against 120 training logs with known truth, made by another program: how often bands and dates hold, false
 * alarms, slips and steps. Run with `npm run calibration:training`; runs 1 to 60 unless told otherwise.
 *
 *   tsx scripts/trainingLogs.ts [--runs=1-60] [--untouched] [--misses]
 *
 * Runs 61 to 120 are kept for the end and refused without --untouched.
 */
import { judgeRun, nothingJudged } from './training/judge';
import { writePart } from './benchPaper';
import { keeps, reportOf } from './training/report';

const option = (name: string): string | undefined => process.argv.find((one) => one.startsWith(`--${name}=`))?.split('=')[1];
const flag = (name: string): boolean => process.argv.includes(`--${name}`);
const LAST_FOR_TRAINING = 60;

const runs = (option('runs') ?? (flag('untouched') ? '61-120' : '1-60')).split(',').flatMap((text) => {
  const [from, to] = text.split('-').map(Number) as [number, number?];
  return Array.from({ length: (to ?? from) - from + 1 }, (_, i) => from + i);
});
if (runs.some((run) => run > LAST_FOR_TRAINING) && !flag('untouched')) {
  console.error('Runs 61 to 120 are kept for the end; say --untouched.');
  process.exit(1);
}
const judged = nothingJudged();
for (const run of runs) judgeRun(run, judged);
const lines = reportOf(judged);
for (const { text, holds } of lines) console.log(`${holds === null ? '      ' : holds ? 'holds ' : 'SHORT '} ${text}`);
if (flag('misses')) {
  for (const alarm of judged.alarms)
    if (!alarm.explained) console.log(`alarm run ${alarm.run} ${alarm.system} row ${alarm.row} ${alarm.id}: ${alarm.title}`);
  for (const ask of judged.asks) console.log(`asked run ${ask.run} ${ask.system} row ${ask.row}: ${ask.says}`);
  for (const slip of judged.slips)
    if (!slip.found || !slip.mended)
      console.log(`slip run ${slip.run} ${slip.system} row ${slip.row} ${slip.kind}: ${slip.found ? 'found, not mended' : 'missed'}`);
  for (const step of judged.steps)
    console.log(
      `step run ${step.run} ${step.system} ${step.kind} row ${step.row}: dated ${step.dated}, told at ${step.toldAt}, ${step.named}`,
    );
  for (const wrong of judged.columns.wrong) console.log(`column ${wrong}`);
}
const short = lines.filter(({ holds }) => holds === false).length;
console.log(`${short} of ${lines.filter(({ holds }) => holds !== null).length} figures fall short of what was asked`);
const ALL = 60;
if (runs.length === ALL)
  writePart(
    flag('untouched') ? '## The log on the untouched half' : '## The log on training logs',
    `By \`npm run calibration:training\`${flag('untouched') ? ' with --untouched' : ''}: runs ${runs[0]} to ${runs.at(-1)} of logs with known truth, made by another program. Bands are of 80 %.

| Asked | Found |
|---|---|
${lines.map(({ text, holds }) => `| ${holds === null ? '' : holds ? 'holds' : 'short'} | ${text} |`).join('\n')}`,
  );
// What must not get worse, whatever is still short of what was asked.
const lost = keeps(judged).filter(({ kept }) => !kept);
for (const { says } of lost) console.log(`FAILED  ${says}`);
if (lost.length > 0) process.exit(1);
