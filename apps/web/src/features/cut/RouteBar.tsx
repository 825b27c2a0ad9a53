import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { formatTime, suggestOrder, toolChanges, withSetup } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { planningWords } from '../job/planning';
import { useCalmJob } from '../job/JobContext';
import { counted } from './words';

/** The route as a whole: how many tools and changes, how long; a proposal, and a better order where there is one. */
export function RouteBar({ busy, onPropose }: { busy: boolean; onPropose: () => void }) {
  const { job, setup, edit, computed } = useCalmJob();
  const on = setup.operations.filter((o) => o.on);
  const better = suggestOrder(job, setup);
  const changes = toolChanges(on);
  const saved = changes - toolChanges(better.operations);
  const { proof, proofFresh, planning } = computed;
  if (job.part.features.length === 0) return null;
  const facts = [
    counted(on.length, 'operation', 'operations'),
    counted(new Set(on.map((o) => o.toolId)).size, 'tool', 'tools'),
    counted(changes, 'tool change', 'tool changes'),
    ...(proof && proofFresh ? [`${formatTime(proof.clock.total)} in all`] : []),
  ];
  return (
    <View style={{ gap: SPACE.xs }}>
      {on.length > 0 && (
        <Txt kind="small" tone="quiet" testID="route-summary">
          {facts.join(' · ')}
        </Txt>
      )}
      {planning && (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s }} testID="planning">
          <Txt kind="small" style={{ flex: 1 }}>
            {planningWords(planning)} …
          </Txt>
          <Button compact onPress={computed.cancel}>
            Stop
          </Button>
        </View>
      )}
      {computed.cancelled && !planning && (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s }}>
          <Txt kind="small" style={{ flex: 1 }}>
            ▲ Stopped: the paths are out of date.
          </Txt>
          <Button compact onPress={computed.run}>
            Plan again
          </Button>
        </View>
      )}
      <Row>
        <Button compact mode="outlined" loading={busy} disabled={busy} onPress={onPropose} testID="propose-route">
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
    </View>
  );
}
