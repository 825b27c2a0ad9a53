/** An id made on this device, so that what is sent twice is the same: 32 hexadecimal digits. */
export const freshKey = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) => b.toString(16).padStart(2, '0')).join('');
