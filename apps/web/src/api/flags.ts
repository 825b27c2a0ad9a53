/** Something that is so or is not, for components to listen to. */
function flag() {
  let isSo = false;
  const waiting = new Set<() => void>();
  return {
    now: () => isSo,
    listen: (told: () => void) => {
      waiting.add(told);
      return () => void waiting.delete(told);
    },
    set: (next: boolean) => {
      if (next === isSo) return;
      isSo = next;
      waiting.forEach((told) => told());
    },
  };
}

/** Whether the server has asked for its pass phrase: this device has not been let in, or was shown out. */
export const shut = flag();

/** Whether the server does not answer: what is seen then is what this device saw last. */
export const down = flag();
