import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { SIZE, SPACE } from '../theme/theme';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

interface Props<T extends string> {
  label: string;
  value: T | undefined;
  options: readonly {
    value: T;
    label: string;
    /** A colour it is about, drawn beside its words. */
    swatch?: string;
  }[];
  onChange: (value: T) => void;
  /** Folds up to the chosen one, however few there are. */
  fold?: boolean;
}

/** More choices than this fold up until asked for. */
const MANY = 8;

/** A colour as it is seen. */
export function Swatch({ colour }: { colour: string }) {
  const palette = usePalette();
  return (
    <View
      style={{
        width: SPACE.xl,
        height: SPACE.m,
        borderRadius: 3,
        borderWidth: 1,
        borderColor: palette.line,
        backgroundColor: colour,
      }}
    />
  );
}

/** One of a few: every choice in sight, the chosen one ticked. Many fold up to the chosen one. */
export function Choices<T extends string>({ label, value, options, onChange, fold }: Props<T>) {
  const palette = usePalette();
  const [open, setOpen] = useState(false);
  const folded = (fold || options.length > MANY) && !open;
  const more = value === undefined ? 'Choose …' : 'Other …';
  const shown = folded ? options.filter((o) => o.value === value) : options;
  return (
    <View role="radiogroup" aria-label={label} style={{ gap: SPACE.xs, maxWidth: '100%' }}>
      <Txt kind="small" tone="quiet">
        {label}
      </Txt>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}>
        {shown.map((o) => {
          const chosen = o.value === value;
          return (
            <Pressable
              key={o.value}
              role="radio"
              aria-checked={chosen}
              onPress={() => {
                if (!folded && o.value !== value) onChange(o.value);
                setOpen(folded);
              }}
              style={{
                minHeight: SIZE.touch,
                flexDirection: 'row',
                alignItems: 'center',
                gap: SPACE.s,
                paddingHorizontal: SPACE.m,
                borderRadius: SIZE.radius,
                borderWidth: 1,
                borderColor: chosen ? palette.accent : palette.line,
                backgroundColor: chosen ? palette.accentSoft : palette.sheet,
              }}
            >
              {o.swatch && <Swatch colour={o.swatch} />}
              <Txt bold={chosen}>
                {chosen ? '✓ ' : ''}
                {o.label}
              </Txt>
            </Pressable>
          );
        })}
        {folded && (
          <Pressable
            role="button"
            aria-label={`${more} ${label}`}
            onPress={() => setOpen(true)}
            style={{ minHeight: SIZE.touch, justifyContent: 'center', paddingHorizontal: SPACE.m }}
          >
            <Txt tone="accent">{more}</Txt>
          </Pressable>
        )}
      </View>
    </View>
  );
}

/** Turns plain words into options that read as themselves. */
export const plainOptions = <T extends string>(values: readonly T[]) =>
  values.map((value) => ({ value, label: value }));

/** The units lengths are written in. */
export const UNITS = ['mm', 'inch'] as const;
