import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { SPACE } from '../theme/theme';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';

const SHORTCUTS: [string, string][] = [
  ['?', 'this list'],
  ['Ctrl or ⌘ Z', 'undo, in a job'],
  ['Ctrl or ⌘ Shift Z', 'redo, in a job'],
  ['Tab, Enter', 'go to a value of a sentence, change it'],
  ['Space, arrows, Space', 'on a handle: move an operation'],
  ['← →', 'on the load ribbon: back and on'],
  ['Esc', 'close what is open'],
];

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && /^(INPUT|TEXTAREA)$/.test(target.tagName);

/** The keyboard's shortcuts, at the touch of a question mark. */
export function Shortcuts() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.key === '?' && !typing(event.target)) setOpen(true);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
  return (
    <Sheet title="Keyboard" open={open} onClose={() => setOpen(false)}>
      {SHORTCUTS.map(([keys, what]) => (
        <View key={keys} style={{ flexDirection: 'row', gap: SPACE.m }}>
          <Txt mono kind="small" style={{ width: 170 }}>
            {keys}
          </Txt>
          <Txt style={{ flex: 1 }}>{what}</Txt>
        </View>
      ))}
    </Sheet>
  );
}
