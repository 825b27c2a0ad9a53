/** Whether the server has asked for its pass phrase: this device has not been let in, or was shown out. */
let isShut = false;
const waiting = new Set<() => void>();

export const shut = {
  now: () => isShut,
  listen: (told: () => void) => {
    waiting.add(told);
    return () => void waiting.delete(told);
  },
  close: () => {
    isShut = true;
    waiting.forEach((told) => told());
  },
};
