import { Button } from 'react-native-paper';
import { Row } from './Card';

interface Props {
  /** The way out, beside what the sheet is for. */
  leave: string;
  onLeave: () => void;
  take: string;
  onTake: () => void;
  disabled?: boolean;
  testID?: string;
}

/** The two buttons a sheet ends in. */
export function Actions({ leave, onLeave, take, onTake, disabled, testID }: Props) {
  return (
    <Row>
      <Button mode="outlined" onPress={onLeave}>
        {leave}
      </Button>
      <Button mode="contained" disabled={disabled} onPress={onTake} testID={testID}>
        {take}
      </Button>
    </Row>
  );
}
