const KEY = 'tidypath-device';
let own: string | undefined;

/** A name nobody else gives: 32 hexadecimal digits. */
export const newId = () =>
  [...crypto.getRandomValues(new Uint8Array(16))].map((b) => b.toString(16).padStart(2, '0')).join('');

/** Tells this browser from others that save the same job; it says nothing about who sits there. */
export function deviceId(): string {
  if (own) return own;
  try {
    own = localStorage.getItem(KEY) ?? newId();
    localStorage.setItem(KEY, own);
  } catch {
    own ??= newId();
  }
  return own;
}
