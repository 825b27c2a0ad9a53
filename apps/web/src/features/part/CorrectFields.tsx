import { Button } from 'react-native-paper';
import { Feature, Part, joinedFeature, placements } from '@tidypath/core';
import { Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';

interface Props {
  part: Part;
  feature: Feature;
  onSplit: () => void;
  /** Joined with another feature, whose id is told. */
  onJoin: (joined: Feature, other: string) => void;
}

/** One feature that is several, or one with another: what was read wrong is put right. */
export function CorrectFields({ part, feature, onSplit, onJoin }: Props) {
  const joins = part.features.flatMap((other) => {
    const joined = joinedFeature(feature, other);
    return joined ? [{ other, joined }] : [];
  });
  const isPattern = placements(feature.pattern).length > 1;
  if (!isPattern && joins.length === 0) return null;
  return (
    <>
      <Txt kind="small" tone="quiet">
        Read wrong?
      </Txt>
      <Row>
        {isPattern && (
          <Button compact mode="outlined" onPress={onSplit} testID="split-feature">
            each by itself
          </Button>
        )}
        {joins.map(({ other, joined }) => (
          <Button
            key={other.id}
            compact
            mode="outlined"
            onPress={() => onJoin(joined, other.id)}
            testID={`join-${other.id}`}
          >
            one with {other.name}
          </Button>
        ))}
      </Row>
    </>
  );
}
