import { Text } from 'react-native';
import { FONT, TYPE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { onKeys } from '../../ui/keys';
import { Field, Piece, fieldKey } from './sentences/types';

interface Props {
  pieces: Piece[];
  editing?: string;
  onEdit: (field: Field) => void;
}

const TALL = 30;

/** The operation as a sentence; every value is a word one can tap. */
export function SentenceText({ pieces, editing, onEdit }: Props) {
  const palette = usePalette();
  return (
    <Text style={{ color: palette.ink, fontFamily: FONT.text, fontSize: TYPE.body + 1, lineHeight: TALL }}>
      {pieces.map((piece, i) => {
        if (typeof piece === 'string') return piece;
        const key = fieldKey(piece.field);
        const here = key === editing;
        return (
          <Text
            key={i}
            role="button"
            aria-label={`Change ${piece.text}`}
            testID={`value-${key}`}
            onPress={() => onEdit(piece.field)}
            {...onKeys(() => onEdit(piece.field))}
            style={{
              fontFamily: FONT.bold,
              color: palette.accent,
              textDecorationLine: 'underline',
              textDecorationStyle: 'dotted',
              backgroundColor: here ? palette.accentSoft : 'transparent',
              cursor: 'pointer',
              paddingVertical: 6,
            }}
          >
            {piece.text}
          </Text>
        );
      })}
    </Text>
  );
}
