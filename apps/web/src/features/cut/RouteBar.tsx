import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { formatTime, suggestOrder, toolChanges, withSetup } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { planningWords } from '../job/planning';
import { useCalmJob, usePace } from '../job/JobContext';
import { counted } from './words';

/** The operation being planned, or that somebody stopped it. */
function Planning() {
  const { computed } = useCalmJob();
  const { planning } = usePace();
  if (!planning && !computed.cancelled) return null;
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s }} testID={planning && 'planning'}>
      <Txt kind="small" style={{ flex: 1 }}>
        {planning ? `${planningWords(planning)} …` : '▲ Stopped: the paths are out of date.'}
      </Txt>
      <Button compact onPress={planning ? computed.cancel : computed.run}>
        {planning ? 'Stop' : 'Plan again'}
      </Button>
    </View>
  );
}

/** The route as a whole: how many tools and changes, how long; a proposal, and a better order where there is one. */
export function RouteBar({ busy, onPropose }: { busy: boolean; onPropose: () => void }) {
  const { job, setup, edit, computed } = useCalmJob();
  const on = setup.operations.filter((o) => o.on);
  const better = suggestOrder(job, setup);
  const changes = toolChanges(on);
  const saved = changes - toolChanges(better.operations);
  const { proof, proofFresh } = computed;
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
      <Planning />
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
