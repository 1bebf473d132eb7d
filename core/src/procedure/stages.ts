/** The order of work: rows of the traveller. */
export const stages = [
  { id: 'intake', title: 'Intake' },
  { id: 'diagnose', title: 'Diagnose' },
  { id: 'ready', title: 'Ready' },
  { id: 'tear-down', title: 'Tear down' },
  { id: 'inspect', title: 'Inspect' },
  { id: 'clean-and-seat', title: 'Clean and seat' },
  { id: 'assemble', title: 'Assemble' },
  { id: 'adjust', title: 'Adjust' },
  { id: 'verify', title: 'Verify' },
  { id: 'lock-and-fill', title: 'Lock and fill' },
  { id: 'wheel-on', title: 'Wheel on' },
  { id: 'release', title: 'Release' },
] as const;

export type Stage = (typeof stages)[number]['id'];

/** Place of a stage in the order of work, from 0. */
export function stageOrder(stage: Stage): number {
  return stages.findIndex((s) => s.id === stage);
}
