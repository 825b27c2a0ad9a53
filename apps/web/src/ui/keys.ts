/** Lets the keyboard scroll what it can reach no control in. */
export const scrollable = { tabIndex: 0 } as object;

/** Makes Enter and Space do what a tap does, for words that act as buttons. */
export const onKeys = (act: () => void): object => ({
  onKeyDown: (event: { key: string; preventDefault: () => void }) => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    act();
  },
});
