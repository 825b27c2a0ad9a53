import { useRouter } from 'expo-router';
import { View } from 'react-native';
import { InputPlace, Lift, formatFeed, formatNumber } from '@tidypath/core';
import { Page } from '../../shell/Page';
import { SPACE } from '../../theme/theme';
import { useWide } from '../../theme/usePalette';
import { Card } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { useSettled } from '../../ui/useSettled';
import { useShop } from '../../ui/cutting/useShop';
import { Answers } from './Answers';
import { Inputs } from './Inputs';
import { KeepIt } from './KeepIt';
import { Pictures } from './Pictures';
import { useAnswer, useTold } from './useCalculator';

/** Speeds and feeds for somebody standing at a machine: what goes in on top, everything out below. */
export function CalculatorPage() {
  const router = useRouter();
  const wide = useWide();
  const { tools, machines, materials } = useShop();
  const { told, tell, forgets } = useTold();
  const tool = tools.find((t) => t.id === told.toolId) ?? tools[0];
  const material = materials.find((m) => m.id === told.materialId) ?? materials[0];
  const machine = machines.find((m) => m.id === told.machineId) ?? machines[0];
  const found = useAnswer(told, tool, material, machine);
  const settled = useSettled(found);
  if (!found) return <Page title="Calculator">{null}</Page>;
  const calm = settled ?? found;
  const goTo = (place: InputPlace) => {
    const to = {
      tool: `/tools/${tool.id}`,
      holder: `/shop/holders/${tool.holder.id}`,
      material: `/shop/materials/${material.id}`,
      machine: `/shop/machines/${machine.id}`,
    } as const;
    return place in to ? () => router.push(to[place as keyof typeof to]) : undefined;
  };
  const take = ({ change }: Lift) =>
    tell({
      ...(change.toolId && { toolId: change.toolId }),
      ...(change.ae && { ae: change.ae }),
      ...(change.ap && { ap: change.ap }),
    });
  const headline = (
    <Card style={{ paddingVertical: SPACE.s }}>
      <Txt mono bold kind="large" testID="headline">
        {formatNumber(found.suggestion.rpm, 0)} rpm · {formatFeed(found.suggestion.feed, 'mm')}
      </Txt>
      <Txt
        kind="small"
        bold={!found.suggestion.possible}
        tone={found.suggestion.possible ? 'quiet' : 'danger'}
        testID="limit"
        live
      >
        {found.suggestion.possible ? '' : '▲ '}
        {found.suggestion.limitText}
      </Txt>
    </Card>
  );
  return (
    <Page title="Calculator">
      {forgets && <Txt kind="small">◆ This device cannot remember what you typed here.</Txt>}
      {headline}
      <View
        style={{ flexDirection: wide ? 'row' : 'column', gap: SPACE.m, alignItems: wide ? 'flex-start' : 'stretch' }}
      >
        <View style={{ flex: wide ? 1 : undefined, gap: SPACE.m, minWidth: 0 }}>
          <Inputs found={found} told={told} tell={tell} />
          <Answers found={found} given={told.rpm > 0 || told.feed > 0} onTake={take} goTo={goTo} />
          <KeepIt found={calm} />
        </View>
        <View style={{ flex: wide ? 1 : undefined, gap: SPACE.m, minWidth: 0 }}>
          <Pictures found={calm} />
        </View>
      </View>
      <Txt kind="small" tone="quiet">
        Estimates to start from. Guards closed, eye protection on; the machine maker’s limits, the tool maker’s data and
        your local rules decide.
      </Txt>
    </Page>
  );
}
