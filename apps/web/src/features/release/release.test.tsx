import { fireEvent, screen } from '@testing-library/react-native';
import { Check, KeptTick, ReleaseRow, acceptedKey, finding } from '@tidypath/core';
import { show } from '../../../testing/show';
import { ScenePicture } from '../../ui/ScenePicture';
import { ChecklistCard } from './ChecklistCard';
import { PreflightCard } from './PreflightCard';
import { ReleasesCard } from './ReleasesCard';
import { stateText, stepText } from './words';

const pushed: string[] = [];
jest.mock('expo-router', () => ({ useRouter: () => ({ push: (to: string) => pushed.push(to) }) }));

const care = finding('hand-without-word', { operation: 'Turn it' }, { operation: 'o1' });
const note = finding('pockets-unknown', { tools: 'T4' });
const checks: Check[] = [
  { topic: 'part', findings: [] },
  { topic: 'load', findings: [] },
  { topic: 'ready', findings: [care, note] },
];

describe('what is looked at before a release', () => {
  test('is told gravest first; what was clean stands in one line, notes fold away', async () => {
    await show(<PreflightCard checks={checks} accepted={[]} onAccept={() => undefined} goTo={() => undefined} />);
    expect(screen.getByText('◆ Made ready and as suggested')).toBeTruthy();
    expect(screen.getByText('✓ The part as drawn · Load on spindle, tool and grip')).toBeTruthy();
    expect(screen.queryByText(note.message)).toBeNull();
    await fireEvent.press(screen.getByText('One note'));
    expect(screen.getByText(note.message)).toBeTruthy();
  });

  test('is accepted one by one, and leads to its place', async () => {
    const taken: string[] = [];
    const gone: string[] = [];
    const goTo = () => ({ label: 'Go to Cut', go: () => void gone.push('cut') });
    await show(<PreflightCard checks={checks} accepted={[]} onAccept={(key) => taken.push(key)} goTo={goTo} />);
    await fireEvent.press(screen.getByRole('checkbox'));
    await fireEvent.press(screen.getByText('Go to Cut'));
    expect([taken, gone]).toEqual([[acceptedKey(care)], ['cut']]);
  });
});

const row = (more: Partial<ReleaseRow> = {}): ReleaseRow => ({
  ...{ id: 'r1', jobId: 'j1', jobName: 'Plate', setupId: 's1', setupName: 'Top', machine: 'Whimbrel' },
  ...{ number: 2, version: 7, at: '2026-03-01T08:00:00.000Z', who: 'Lio', root: '0a1b2c3d'.padEnd(64, '0') },
  ...{ seconds: 90, files: ['plate.nc'], toLoad: [], needsApproval: false },
  state: { state: 'released' },
  against: { same: true, changed: [] },
  ...more,
});

describe('releases of a setup', () => {
  test('say how they stand; only what is handed out can be taken', async () => {
    await show(<ReleasesCard rows={[row({ state: { state: 'waiting' } }), row({ id: 'r0', number: 1 })]} />);
    expect(screen.getByText('Release 2 · 0A1B2C3D')).toBeTruthy();
    expect(screen.getByText('◌ Nobody has approved it yet')).toBeTruthy();
    expect(screen.queryByText('Download')).toBeNull();
    await fireEvent.press(screen.getByText('One earlier'));
    expect(screen.getByText('Download')).toBeTruthy();
    await fireEvent.press(screen.getByTestId('open-1'));
    expect(pushed).toEqual(['/release/r0']);
  });

  test('each state has words and a shape of its own', () => {
    expect(stateText({ state: 'void', why: 'the tools changed since' })).toBe(
      '▲ Its approval is void: the tools changed since',
    );
    expect(stateText({ state: 'approved', by: 'Ines', at: '', singleBlock: true })).toBe(
      '✓ Approved for single block by Ines',
    );
    expect(stateText({ state: 'refused', by: 'Ines', at: '', remark: 'clamp it' })).toBe('▲ Refused by Ines: clamp it');
  });

  test('the server says how far it is', () => {
    expect(stepText({ waiting: 2 })).toBe('Waits for 2 before it');
    expect(stepText({ planning: { name: 'Face', index: 0, of: 3 } })).toBe('Planning “Face”, 1 of 3');
    expect(stepText({ proving: 0.426 })).toBe('Proving, 43 %');
  });
});

test('a checklist says who saw to what, and what to do where it is not so', async () => {
  const items = [
    { id: 'guard', group: 'before' as const, text: 'Guard shut', ifNot: 'Do not start' },
    { id: 'tool-4', group: 'tools' as const, text: 'T4 sharp', ifNot: 'Set it again' },
  ];
  const tick = (item: string, isSo: boolean): KeptTick => ({ item, isSo, who: 'Lio', at: '' });
  const said: [string, boolean][] = [];
  await show(
    <ChecklistCard
      items={items}
      ticks={[tick('guard', true), tick('tool-4', true), tick('tool-4', false)]}
      onTick={(item, isSo) => said.push([item, isSo])}
    />,
  );
  expect(screen.getByText('Prove-out: 1 of 2 seen to')).toBeTruthy();
  expect(screen.getByText('▲ Not so: Set it again. Lio')).toBeTruthy();
  await fireEvent.press(screen.getByLabelText('T4 sharp'));
  await fireEvent.press(screen.getByLabelText('Not so: Guard shut'));
  expect(said).toEqual([
    ['tool-4', true],
    ['guard', false],
  ]);
});

test('a scene of a sheet is drawn on the screen, every mark of it', async () => {
  const at = { x: 1, y: 2 };
  await show(
    <ScenePicture
      told="Drawn"
      scene={{
        width: 10,
        height: 5,
        marks: [
          { kind: 'line', from: at, to: { x: 3, y: 4 }, weight: 'thin', dashed: true },
          { kind: 'polygon', rings: [[at, { x: 3, y: 4 }, { x: 5, y: 1 }]], fill: 'dark' },
          { kind: 'circle', at, radius: 1, weight: 'plain' },
          { kind: 'rectangle', at, width: 2, height: 1, fill: 'light' },
          { kind: 'text', at, text: '15 mm', size: 2, bold: true },
        ],
      }}
    />,
  );
  expect(screen.getByLabelText('Drawn')).toBeTruthy();
  expect(JSON.stringify(screen.toJSON())).toContain('M1 2L3 4L5 1Z');
});
