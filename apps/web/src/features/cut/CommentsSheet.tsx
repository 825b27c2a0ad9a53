import { format } from 'date-fns/format';
import { useState } from 'react';
import { View } from 'react-native';
import { TextInput } from 'react-native-paper';
import { KeptComment, Operation } from '@tidypath/core';
import { Actions } from '../../ui/Actions';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';

interface Props {
  operation: Operation;
  comments: KeptComment[];
  onSay: (text: string) => Promise<void>;
  onClose: () => void;
}

/** What was asked and answered at an operation, the first first, and room for more. */
export function CommentsSheet({ operation, comments, onSay, onClose }: Props) {
  const [text, setText] = useState('');
  const [failed, setFailed] = useState('');
  const say = () =>
    void onSay(text.trim()).then(
      () => {
        setText('');
        setFailed('');
      },
      (error: Error) => setFailed(error.message),
    );
  return (
    <Sheet
      title={`Comments at “${operation.name}”`}
      open
      onClose={onClose}
      actions={
        <Actions leave="Close" onLeave={onClose} take="Say it" onTake={say} disabled={!text.trim()} testID="say" />
      }
    >
      {comments.length === 0 && (
        <Txt tone="quiet">Nothing yet. Ask why a value is as it is, or say it for whoever comes after you.</Txt>
      )}
      {comments.map((c) => (
        <View key={c.id}>
          <Txt kind="small" tone="quiet">
            {[c.who || 'somebody', c.at && format(new Date(c.at), 'd MMM yyyy, HH:mm')].filter(Boolean).join(', ')}
          </Txt>
          <Txt>{c.text}</Txt>
        </View>
      ))}
      <TextInput
        mode="outlined"
        multiline
        label="Comment"
        aria-label="Comment"
        value={text}
        maxLength={1000}
        onChangeText={setText}
      />
      {failed !== '' && (
        <Txt tone="danger" live>
          ▲ {failed}
        </Txt>
      )}
    </Sheet>
  );
}
