import type { WorkGrip } from '@tidypath/core';

/** How firmly work is held, as it is said. */
export const GRIP_WORDS: Record<WorkGrip, string> = { poor: 'poorly', fair: 'fairly', firm: 'firmly' };
