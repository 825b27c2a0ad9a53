import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { formatTime, isByHand, suggestOrder, toolChanges, wholeTime, withSetup } from '@tidypath/core';
import { SIZE, SPACE } from '../../theme/theme';
import { Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { planningWords } from '../../session/planning';
import { useCalmJob, usePace } from '../../session/JobContext';
import { DepartingSpeeds } from '../../session/SpeedsSheet';
import { counted } from '../../ui/counted';

/** What the route amounts to; while it is planned, how far that is. Its room stays the same, so nothing below it moves. */
function RouteLine({ facts }: { facts: string }) {
  const { computed } = useCalmJob();
  const { planning } = usePace();
  const out = planning ? `${planningWords(planning)} …` : computed.cancelled && '▲ Stopped: the paths are out of date.';
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s, height: SIZE.touch }}>
      <Txt kind="small" tone={out ? 'ink' : 'quiet'} lines={2} style={{ flex: 1 }} testID="route-summary">
        {out || facts}
      </Txt>
      {out && (
        <Button compact onPress={planning ? computed.cancel : computed.run}>
          {planning ? 'Stop' : 'Plan again'}
        </Button>
      )}
    </View>
  );
}

/** The route as a whole: how many tools and changes, how long; a proposal, and a better order where there is one. */
export function RouteBar({
  busy,
  onPropose,
  onCompare,
}: {
  busy: boolean;
  onPropose: () => void;
  onCompare: () => void;
}) {
  const { job, setup, edit, computed } = useCalmJob();
  const on = setup.operations.filter((o) => o.on);
  const cutting = on.filter((o) => !isByHand(o));
  const better = suggestOrder(job, setup);
  const changes = toolChanges(on);
  const saved = changes - toolChanges(better.operations);
  const { proof, proofFresh } = computed;
  if (job.part.features.length === 0) return null;
  const facts = [
    counted(on.length, 'operation', 'operations'),
    counted(new Set(cutting.map((o) => o.toolId)).size, 'tool', 'tools'),
    counted(changes, 'tool change', 'tool changes'),
    ...(proof && proofFresh ? [`${formatTime(wholeTime(proof.clock))} in all`] : []),
  ];
  return (
    <View style={{ gap: SPACE.xs }}>
      {on.length > 0 && <RouteLine facts={facts.join(' · ')} />}
      <Row>
        <Button compact mode="outlined" loading={busy} disabled={busy} onPress={onPropose} testID="propose-route">
          Propose a route
        </Button>
        {job.comparisons?.some((c) => c.route && c.setup === setup.id) && (
          <Button compact mode="outlined" onPress={onCompare}>
            Routes compared
          </Button>
        )}
        <DepartingSpeeds job={job} setup={setup} edit={edit} />
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
