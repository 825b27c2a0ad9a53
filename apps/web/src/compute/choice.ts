/** Who plans and proves for this device: chosen in Shop, or found out the first time. */

export type Hand = 'device' | 'server';
/** Whose hand it is, and whether somebody chose it or it was measured. */
export interface Choice {
  hand: Hand;
  isChosen: boolean;
}

const KEY = 'tidypath-hand';
const waiting = new Set<() => void>();
let choice: Choice | undefined;

/** A page from the machine of the server need not find out: both are as fast. */
const isServersMachine = () => /^(localhost|127\.|\[::1\])/.test(window.location.hostname);

function remembered(): Choice | undefined {
  try {
    const [hand, how] = (localStorage.getItem(KEY) ?? '').split(' ');
    if (hand === 'device' || hand === 'server') return { hand, isChosen: how === 'chosen' };
  } catch {
    // Then it is found out anew.
  }
  return isServersMachine() ? { hand: 'device', isChosen: false } : undefined;
}

/** What holds; undefined until it is found out. */
export const chosen = {
  now: (): Choice | undefined => (choice ??= remembered()),
  listen: (told: () => void) => {
    waiting.add(told);
    return () => void waiting.delete(told);
  },
};

export function choose(next: Choice): void {
  choice = next;
  try {
    localStorage.setItem(KEY, `${next.hand} ${next.isChosen ? 'chosen' : 'measured'}`);
  } catch {
    // It holds as long as the page.
  }
  waiting.forEach((told) => told());
}
