import type { PlanView, ProofView } from '../../compute/messages';

/** Minutes of each operation by the proof's clock, from the program lines it stands on; only for a single program. */
export function minutesByOperation(plan: PlanView, proof: ProofView): Map<string, number> {
  const minutes = new Map<string, number>();
  if (plan.programs.length !== 1) return minutes;
  const { sections } = plan.programs[0];
  let s = -1;
  for (let i = 0; i < proof.lines.length; i++) {
    while (s + 1 < sections.length && proof.lines[i] >= sections[s + 1].line) s++;
    if (s < 0) continue;
    const id = sections[s].operationId;
    minutes.set(id, (minutes.get(id) ?? 0) + proof.clock.seconds[i] / 60);
  }
  return minutes;
}
