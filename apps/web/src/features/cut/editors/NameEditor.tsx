import { TextInput } from 'react-native-paper';
import { editOperation } from '@tidypath/core';
import type { EditorProps } from './types';

/** Letters a name may have. */
const MOST = 80;

/** What an operation is called, in the route and in the program. */
export function NameEditor({ operation, edit }: EditorProps) {
  return (
    <TextInput
      mode="outlined"
      label="Name"
      aria-label="Name of the operation"
      autoFocus
      defaultValue={operation.name}
      maxLength={MOST}
      onChangeText={(name) =>
        name.trim() && edit((j) => editOperation(j, operation.id, (o) => ({ ...o, name })), `${operation.id}-name`)
      }
      testID="value-field"
    />
  );
}
