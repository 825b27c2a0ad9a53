import { planningShare, planningWords } from './planning';

const step = { name: 'Clear pockets', index: 1, of: 5 };

test('what is being planned is said, and how far it is where that is known', () => {
  expect(planningWords(undefined)).toBe('Planning the paths');
  expect(planningWords(step)).toBe('Planning 2 of 5: Clear pockets');
  expect(planningWords({ ...step, share: 0.42 })).toBe('Planning 2 of 5: Clear pockets, 42 %');
});

test('the bar moves within an operation and never back', () => {
  const bar = [undefined, step, { ...step, share: 0.5 }, { ...step, index: 2 }].map(planningShare);
  [0, 0.2, 0.3, 0.4].forEach((share, i) => expect(bar[i]).toBeCloseTo(share, 9));
});
