import { Budget, withinBudget } from './budget';

test('work within its budget comes back with its own, work beyond it with what it is told; steps are counted', () => {
  const budget = new Budget(10);
  const count = (steps: number) =>
    withinBudget(
      () => {
        for (let i = 0; i < steps; i++) budget.spend();
        return 'done';
      },
      () => 'met',
    );
  expect([count(7), budget.spent]).toEqual(['done', 7]);
  expect([count(3), budget.spent]).toEqual(['done', 10]);
  expect(count(1)).toBe('met');
});

test('a fault of the work itself is not taken for a budget', () => {
  const work = () => {
    throw new TypeError('a fault');
  };
  expect(() => withinBudget(work, () => 'met')).toThrow('a fault');
});
