/** The search for faults on two membranes: everything its causes would show, what readings leave open, and the next check. */
import { benchGround, buildNodes, diagnose, hypothesesOf, nextChecks, soundTruth, type FaultReading } from '../core/fault';
import { FIRST_LOOK } from '../core/testing/seededFaults';
import { must, time, type Row } from './benchKit';

export function faultRows(): Row[] {
  const made = must(benchGround('pair', true));
  const { ground } = made;
  const { rig, faults, shared, available } = ground;
  const build = (): ReturnType<typeof buildNodes> => buildNodes(rig, hypothesesOf(faults, rig), shared);
  const table = must(build());
  // A membrane that lets four times as much through, the rest as it should be.
  const truth = must(soundTruth({ id: 'pair', ...made, table }));
  const readings = FIRST_LOOK.map((kind): FaultReading => ({ kind, value: kind === 'membrane' ? 4 * truth[kind] : truth[kind] }));
  const causes = `${table.hypotheses.length} causes, ${table.nodes.length} nodes`;
  return [
    {
      what: 'Every cause of two membranes laid down',
      median: time(build, 3),
      unit: 'ms',
      limit: 1000,
      note: `${causes}, ${table.solves} solves`,
    },
    {
      what: 'What seven readings leave open of it',
      median: time(() => diagnose(table, readings), 15),
      unit: 'ms',
      limit: 50,
      note: 'the whole posterior, on the table laid down',
    },
    {
      what: 'The next check',
      // A diagnosis of its own each time: nothing of it is kept from the last.
      median: time(() => nextChecks(table, must(diagnose(table, readings)), available), 9),
      unit: 'ms',
      limit: 150,
      note: `the posterior again, and what each of ${available.kinds.length + available.checks.length} checks would tell`,
    },
  ];
}
