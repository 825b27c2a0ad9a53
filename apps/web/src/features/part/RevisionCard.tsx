import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { Change, Job, changeText } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { counted } from '../../ui/counted';

/** Operations that work on a feature, by name. */
const worksOn = ({ setups }: Job, id: string): string[] =>
  setups.flatMap((s) => s.operations.filter((o) => o.targets.includes(id)).map((o) => o.name));

/** What a change means for the route. */
function touches(job: Job, { kind, feature }: Change): string {
  const names = worksOn(job, feature.id);
  if (kind === 'added') return 'nothing cuts it yet';
  if (names.length === 0) return 'nothing worked on it';
  return `${kind === 'removed' ? 'take it out of' : 'look at'} ${names.join(', ')}`;
}

/** What a newer file changed, each with the operations it touches. */
export function RevisionCard({ changes, onClose }: { changes: Revision; onClose: () => void }) {
  const { job, list } = changes;
  return (
    <Card testID="revision">
      <Txt bold>
        {list.length === 0
          ? 'A newer file of the same part: nothing changed'
          : `A newer file of the same part: ${counted(list.length, 'change', 'changes')}`}
      </Txt>
      <View role="list" style={{ gap: SPACE.xs }}>
        {list.map((change) => (
          <View role="listitem" key={`${change.kind} ${change.feature.id}`}>
            <Txt>
              {changeText(change, job.unit)} – {touches(job, change)}.
            </Txt>
          </View>
        ))}
      </View>
      <Button compact onPress={onClose} style={{ alignSelf: 'flex-start' }}>
        Seen
      </Button>
    </Card>
  );
}

/** What changed in a part, with the job as it was then. */
export interface Revision {
  job: Job;
  list: Change[];
}
