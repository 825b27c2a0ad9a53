import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { Advice, Feature, Job, addOperation, formatFeed, formatLength, formatNumber, isAxial } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Txt } from '../../ui/Txt';
import { useAdvice } from '../../ui/cutting/useAdvice';
import { useShop } from '../../ui/cutting/useShop';
import { ToolLine } from '../../ui/ToolLine';

const FEW = 3;

interface Props {
  job: Job;
  setupId: string;
  feature: Feature;
  edit: (next: (job: Job) => Job) => void;
}

/** Tools of the rack for a feature, best first, with their reasons; an operation with one of them is a tap away. */
export function FeatureAdvice({ job, setupId, feature, edit }: Props) {
  const router = useRouter();
  const { id } = useLocalSearchParams<{ id: string }>();
  const { tools } = useShop();
  const [all, setAll] = useState(false);
  const advised = useAdvice(job, feature.id, tools);
  if (!advised) return <Txt tone="quiet">Looking through the rack …</Txt>;
  const { ranked, unfit, buy } = advised;
  const take = ({ kind, tool }: Advice) => {
    if (!kind) return;
    edit((j) => addOperation(j, setupId, kind, [feature.id], tool, tools));
    router.push(`/job/${id}/cut`);
  };
  const speeds = ({ role, tool, suggestion, bite }: Advice) => {
    const run = `${role}: ${formatNumber(suggestion.rpm, 0)} rpm, ${formatFeed(suggestion.feed, job.unit)}`;
    return isAxial(tool)
      ? run
      : `${run}, biting ${formatLength(bite.ae, job.unit)} in layers of ${formatLength(bite.ap, job.unit)}`;
  };
  return (
    <View style={{ gap: SPACE.s }} testID="feature-advice">
      <Txt bold>Tools for it</Txt>
      {buy && <Txt kind="small">◆ Nothing in the rack does all of it. To buy: {buy}.</Txt>}
      {ranked.slice(0, all ? undefined : FEW).map((r) => (
        <View key={r.tool.id + r.role} style={{ gap: SPACE.xs }}>
          <ToolLine tool={r.tool} unit={job.unit} reasons={[speeds(r), ...r.reasons]} cautions={r.cautions} />
          {r.kind && (
            <Button
              compact
              mode="outlined"
              onPress={() => take(r)}
              testID={`use-${r.tool.id}`}
              style={{ alignSelf: 'flex-end' }}
            >
              Add an operation with T{r.tool.number}
            </Button>
          )}
        </View>
      ))}
      {ranked.length === 0 && !buy && <Txt tone="quiet">Nothing to cut here.</Txt>}
      {ranked.length + unfit.length > FEW && (
        <Button compact onPress={() => setAll(!all)} style={{ alignSelf: 'flex-start' }}>
          {all ? 'Fewer' : `All ${ranked.length}, and ${unfit.length} that cannot`}
        </Button>
      )}
      {all &&
        unfit.map((u) => (
          <Txt key={u.tool.id} kind="small" tone="quiet">
            T{u.tool.number} {u.tool.name}: {u.why}
          </Txt>
        ))}
    </View>
  );
}
