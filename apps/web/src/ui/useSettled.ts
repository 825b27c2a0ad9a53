import { startTransition, useEffect, useState } from 'react';

/** A value once it has stood still for a moment: for what is too heavy to follow every keystroke. */
export function useSettled<T>(value: T, pause = 600): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => startTransition(() => setSettled(value)), pause);
    return () => clearTimeout(timer);
  }, [value, pause]);
  return settled;
}
