import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { Proposal, formatTime, suggestOrder, toolChanges, withSetup } from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { engine } from '../../compute/engine';
import { SPACE } from '../../theme/theme';
import { Row } from '../../ui/Card';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { useCalmJob } from '../job/JobContext';

const counted = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

/** A proposed route to read before it takes the place of today's. */
function ProposalSheet({
  proposal,
  setupId,
  replaces,
  onTake,
  onClose,
}: {
  proposal: Proposal;
  setupId: string;
  replaces: number;
  onTake: () => void;
  onClose: () => void;
}) {
  const { job, missing } = proposal;
  const { operations } = job.setups.find((s) => s.id === setupId)!;
  const toolOf = (id: string) => job.tools.find((t) => t.id === id);
  return (
    <Sheet title="A route for this part" open onClose={onClose}>
      <Txt kind="small" tone="quiet">
        {counted(operations.length, 'operation', 'operations')},{' '}
        {counted(toolChanges(operations), 'tool', 'tool changes')}. Everything stays yours to change.
      </Txt>
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
      <Row>
        <Button mode="outlined" onPress={onClose}>
          Leave it
        </Button>
        <Button mode="contained" onPress={onTake} testID="take-route">
          {replaces > 0 ? `Replace the ${counted(replaces, 'operation', 'operations')}` : 'Use this route'}
        </Button>
      </Row>
    </Sheet>
  );
}

/** The route as a whole: how many tools and changes, how long; a proposal, and a better order where there is one. */
export function RouteBar() {
  const { job, setup, edit, computed } = useCalmJob();
  const { items: rack } = useShelf('tools');
  const [proposal, setProposal] = useState<Proposal>();
  const [busy, setBusy] = useState(false);
  const { operations } = setup;
  const on = operations.filter((o) => o.on);
  const better = suggestOrder(job, setup);
  const changes = toolChanges(operations);
  const saved = changes - toolChanges(better.operations);
  const { proof, proofFresh } = computed;
  const propose = async () => {
    setBusy(true);
    try {
      setProposal(await engine.propose(job, setup.id, rack));
    } finally {
      setBusy(false);
    }
  };
  if (job.part.features.length === 0) return null;
  return (
    <View style={{ gap: SPACE.xs }}>
      {on.length > 0 && (
        <Txt kind="small" tone="quiet" testID="route-summary">
          {counted(on.length, 'operation', 'operations')} ·{' '}
          {counted(new Set(on.map((o) => o.toolId)).size, 'tool', 'tools')} ·{' '}
          {counted(changes, 'tool change', 'tool changes')}
          {proof && proofFresh ? ` · ${formatTime(proof.clock.total)} in all` : ''}
        </Txt>
      )}
      <Row>
        <Button
          compact
          mode="outlined"
          loading={busy}
          disabled={busy}
          onPress={() => void propose()}
          testID="propose-route"
        >
          Propose a route
        </Button>
        {better.differs && (
          <Button
            compact
            mode="outlined"
            onPress={() => edit((j) => withSetup(j, { ...setup, operations: better.operations }))}
            testID="suggest-order"
          >
            {saved > 0
              ? `Put in order: ${counted(saved, 'tool change', 'tool changes')} fewer`
              : 'Put in the usual order'}
          </Button>
        )}
      </Row>
      {proposal && (
        <ProposalSheet
          proposal={proposal}
          setupId={setup.id}
          replaces={operations.length}
          onClose={() => setProposal(undefined)}
          onTake={() => {
            edit(() => proposal.job);
            setProposal(undefined);
          }}
        />
      )}
    </View>
  );
}
