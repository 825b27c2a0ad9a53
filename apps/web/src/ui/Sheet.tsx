import { ReactNode, useEffect } from 'react';
import { ScrollView, View, ViewStyle } from 'react-native';
import { createPortal } from 'react-dom';
import { IconButton, Modal, Portal } from 'react-native-paper';
import { SIZE, SPACE } from '../theme/theme';
import { usePalette, useWide } from '../theme/usePalette';
import { Txt } from './Txt';

interface Props {
  title: string;
  open: boolean;
  onClose: () => void;
  /** Wide only: over the panel at the right, or beside it, leaving the panel in sight. */
  place?: 'panel' | 'beside';
  /** What is done with it: below what can be scrolled, so that it stays where it is while that grows. */
  actions?: ReactNode;
  children: ReactNode;
}

/** Over the whole page wherever it is asked for; part of the tree that asks, so that what is typed here shows at once. */
const FIXED = {
  position: 'fixed',
  top: SIZE.sheetTop,
  width: SIZE.panel - SPACE.xl,
  maxHeight: '84%',
  zIndex: 10,
} as unknown as ViewStyle;

/** Rises from the bottom on a phone; on a wide screen stands beside the route and leaves the picture free. */
export function Sheet({ title, open, onClose, place = 'panel', actions, children }: Props) {
  const palette = usePalette();
  const wide = useWide();
  useEffect(() => {
    if (!open) return;
    const press = (event: KeyboardEvent) => event.key === 'Escape' && onClose();
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [open, onClose]);
  if (!open) return null;
  const body = (
    <View
      role="dialog"
      aria-label={title}
      testID="sheet"
      style={{
        maxHeight: '100%',
        backgroundColor: palette.sheet,
        borderRadius: SIZE.radius,
        borderWidth: 1,
        borderColor: palette.line,
      }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', paddingLeft: SPACE.l }}>
        <Txt heading kind="large" style={{ flex: 1 }}>
          {title}
        </Txt>
        <IconButton icon="close" accessibilityLabel="Close" onPress={onClose} />
      </View>
      <ScrollView
        style={{ maxHeight: SIZE.sheetMax }}
        contentContainerStyle={{ padding: SPACE.l, paddingTop: SPACE.xs, gap: SPACE.m }}
        keyboardShouldPersistTaps="handled"
      >
        {children}
      </ScrollView>
      {actions && <View style={{ padding: SPACE.l, paddingTop: SPACE.s }}>{actions}</View>}
    </View>
  );
  if (wide) {
    const right = place === 'beside' ? SIZE.panel + SPACE.l : SPACE.m;
    return createPortal(<View style={[FIXED, { right }]}>{body}</View>, document.body);
  }
  return (
    <Portal>
      <Modal
        visible
        onDismiss={onClose}
        style={{ justifyContent: 'flex-end' }}
        contentContainerStyle={{ maxHeight: '80%' }}
      >
        {body}
      </Modal>
    </Portal>
  );
}
