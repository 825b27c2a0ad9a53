import { useState } from 'react';
import { Button, TextInput } from 'react-native-paper';
import { FONT, TYPE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Card, Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';

interface Props {
  text: string;
  /** Whether what is shown is not the posted text. */
  edited: boolean;
  onProve: (text: string) => void;
  onBack: () => void;
}

/** Tries an edit of the program: changed here and proved, the job itself stays as it is. */
export function EditCard({ text, edited, onProve, onBack }: Props) {
  const palette = usePalette();
  const [draft, setDraft] = useState<string>();
  if (draft === undefined)
    return (
      <Row>
        <Button compact mode="outlined" onPress={() => setDraft(text)}>
          Try an edit
        </Button>
        {edited && (
          <Button compact mode="outlined" onPress={onBack}>
            Back to the posted text
          </Button>
        )}
      </Row>
    );
  return (
    <Card>
      <Txt kind="small" tone="quiet">
        Change the text and prove it; the job itself stays as it is.
      </Txt>
      <TextInput
        mode="outlined"
        multiline
        value={draft}
        onChangeText={setDraft}
        aria-label="Program text"
        testID="program-text"
        style={{ height: 300 }}
        contentStyle={{ fontFamily: FONT.mono, fontSize: TYPE.small, backgroundColor: palette.sheet }}
      />
      <Row>
        <Button mode="outlined" onPress={() => setDraft(undefined)}>
          Leave it
        </Button>
        <Button
          mode="contained"
          onPress={() => {
            onProve(draft);
            setDraft(undefined);
          }}
        >
          Prove this text
        </Button>
      </Row>
    </Card>
  );
}
