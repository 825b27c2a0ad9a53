const KEY = 'tidypath-device';
let own: string | undefined;

const fresh = () =>
  [...crypto.getRandomValues(new Uint8Array(16))].map((b) => b.toString(16).padStart(2, '0')).join('');

/** Tells this browser from others that save the same job; it says nothing about who sits there. */
export function deviceId(): string {
  if (own) return own;
  try {
    own = localStorage.getItem(KEY) ?? fresh();
    localStorage.setItem(KEY, own);
  } catch {
    own ??= fresh();
  }
  return own;
}
