/** Memory behind the columns of a view: given away, it need not be copied, which would hold up the page. */
export function buffersOf(view: object): ArrayBuffer[] {
  return Object.values(view).flatMap((v) =>
    ArrayBuffer.isView(v)
      ? [v.buffer as ArrayBuffer]
      : v && typeof v === 'object' && !Array.isArray(v)
        ? buffersOf(v)
        : [],
  );
}
