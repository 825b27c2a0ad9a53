import { jobForKind } from '../../../testing/every-kind';
import { jobWith, post, prove, withOperation } from '../../../testing/jobs';
import { tool } from '../../../testing/parts';
import { Job } from '../../document/job';
import { KINDS } from '../../operation/registry';

const WEARING = KINDS.filter((k) => ['pocket', 'clear', 'slot', 'chamfer', 'round-edge'].includes(k.kind));
const slotOf = (width: number, params: Record<string, unknown>) =>
  withOperation(jobWith({ type: 'slot', length: 40, width }, { depth: 4 }), 'slot', ['f2'], tool(7), params);
const jobOf = (kind: (typeof KINDS)[number], wear: boolean): Job => {
  const params = { wear, ...('finish' in jobForKind(kind).setups[0].operations[0].params && { finish: true }) };
  // Loops leave room for a lead; a slot little wider than its cutter has none.
  if (kind.kind === 'slot') return slotOf(18, { ...params, method: 'looping' });
  return jobForKind(kind, params);
};
const count = (text: string, word: string) => text.split(/[\s]/).filter((w) => w === word).length;

test.each(WEARING.map((k) => [k.kind, k] as const))(
  '%s: the wear of the cutter is taken up in the control, on straights, and given back',
  (_, kind) => {
    const { text, codes } = prove(jobOf(kind, true), 0.1);
    const plain = prove(jobOf(kind, false), 0.1);
    expect(count(text, 'G41') + count(text, 'G42')).toBeGreaterThan(0);
    expect(count(text, 'G40')).toBeGreaterThanOrEqual(count(text, 'G41'));
    expect(text).toMatch(/G4[12] D\d+ [XY]/);
    expect(text).toMatch(/HOLDS WEAR ONLY/);
    expect(count(plain.text, 'G41')).toBe(0);
    expect(codes.sort()).toEqual(plain.codes.sort());
  },
);

test('a control without compensation says so at the value', () => {
  const job = jobOf(
    KINDS.find((k) => k.kind === 'pocket')!,
    true,
  );
  expect(post({ ...job, controllerId: 'hobby', controller: undefined }).codes).toContain('no-compensation');
});

test('a tap goes as much deeper as its lead is longer', () => {
  const tapped = (lead: number | undefined) => {
    const job = jobForKind(KINDS.find((k) => k.kind === 'tap')!);
    const tools = job.tools.map((t) => (t.kind === 'tap' ? { ...t, lead } : t));
    const { text } = post({ ...job, tools });
    return Number(/G84 .*?Z(\S+)/.exec(text)![1]);
  };
  const { pitch } = tool(37);
  expect(tapped(undefined)).toBe(tapped(0));
  expect(tapped(undefined) - tapped(5)).toBeCloseTo(2 * pitch, 3);
});

test('where there is no room to take it up, that is a stop', () => {
  expect(post(slotOf(8, { wear: true })).codes).toContain('no-lead-for-compensation');
});
