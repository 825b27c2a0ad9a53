import { useCallback, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { Job, Proposal, toolChanges } from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { engine } from '../../compute/engine';
import { SPACE } from '../../theme/theme';
import { Actions } from '../../ui/Actions';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { counted } from '../../ui/counted';

/** Asks for a route beside the page; `proposal` is there when it has come, until it is taken or left. */
export function useProposal(job: Job, setupId: string) {
  const { items: rack } = useShelf('tools');
  const [proposal, setProposal] = useState<Proposal>();
  const [busy, setBusy] = useState(false);
  const ask = useCallback(async () => {
    setBusy(true);
    try {
      setProposal(await engine.propose(job, setupId, rack));
    } finally {
      setBusy(false);
    }
  }, [job, setupId, rack]);
  const drop = useCallback(() => setProposal(undefined), []);
  return { proposal, busy, ask, drop };
}

/** A proposed route to read before it takes the place of today's. */
export function ProposalSheet({
  proposal,
  setupId,
  replaces,
  onTake,
  onCompare,
  onClose,
}: {
  proposal: Proposal;
  setupId: string;
  replaces: number;
  onTake: () => void;
  onCompare: () => void;
  onClose: () => void;
}) {
  const { job, missing } = proposal;
  const { operations } = job.setups.find((s) => s.id === setupId)!;
  const toolOf = (id: string) => job.tools.find((t) => t.id === id);
  return (
    <Sheet
      title="A route for this part"
      open
      onClose={onClose}
      actions={
        <Actions
          leave="Leave it"
          onLeave={onClose}
          take={replaces > 0 ? `Replace the ${counted(replaces, 'operation', 'operations')}` : 'Use this route'}
          onTake={onTake}
          testID="take-route"
        />
      }
    >
      <Txt kind="small" tone="quiet">
        {counted(operations.length, 'operation', 'operations')},{' '}
        {counted(toolChanges(operations), 'tool', 'tool changes')}. Planned and proved:{' '}
        {missing.length > 0 ? 'what stands is said here' : 'nothing stands against it'}. Everything stays yours to
        change.
      </Txt>
      {replaces > 0 && (
        <Button mode="outlined" onPress={onCompare} style={{ alignSelf: 'flex-start' }} testID="compare-routes">
          Hold it against today’s
        </Button>
      )}
      {missing.map((m) => (
        <Txt key={m.feature + m.why}>
          ◆ {m.feature}: {m.why}.
        </Txt>
      ))}
      {operations.map((o, i) => (
        <View key={o.id} style={{ gap: SPACE.xs }}>
          <Txt bold>
            {i + 1} {o.name}
          </Txt>
          <Txt kind="small">
            T{toolOf(o.toolId)?.number} · {toolOf(o.toolId)?.name}
          </Txt>
          <Txt kind="small" tone="quiet">
            {o.reason}
          </Txt>
        </View>
      ))}
    </Sheet>
  );
}
