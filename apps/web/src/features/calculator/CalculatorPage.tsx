import { useRouter } from 'expo-router';
import { useDeferredValue, useState } from 'react';
import { View } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import {
  InputPlace,
  Lift,
  formatFeed,
  formatLength,
  formatNumber,
  formatSurfaceSpeed,
  formOf,
  isAxial,
  lifts,
  suggestEntry,
  suggestFinish,
  suggestPeck,
  thin,
} from '@tidypath/core';
import { ApiError } from '../../api/client';
import { useShelf } from '../../api/useShelf';
import { Page } from '../../shell/Page';
import { SPACE } from '../../theme/theme';
import { useWide } from '../../theme/usePalette';
import { Card, Fields, Row } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { GaugeBar } from '../../ui/GaugeBar';
import { LengthField } from '../../ui/LengthField';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';
import { BiteCharts } from '../cutting/BiteCharts';
import { BitePicture } from '../cutting/BitePicture';
import { BoldnessSlide } from '../cutting/BoldnessSlide';
import { Lifts } from '../cutting/Lifts';
import { Why } from '../cutting/Why';
import { useShop } from '../cutting/useShop';
import { PowerCurve } from '../shop/PowerCurve';
import { useAnswer, useTold } from './useCalculator';

/** One number in both unit systems. */
function Both({ label, metric, inch, testID }: { label: string; metric: string; inch?: string; testID?: string }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: SPACE.s }}>
      <Txt kind="small" tone="quiet" style={{ flex: 1 }}>
        {label}
      </Txt>
      <Txt mono bold style={{ textAlign: 'right', minWidth: 110 }} testID={testID}>
        {metric}
      </Txt>
      <Txt mono kind="small" tone="quiet" style={{ textAlign: 'right', minWidth: 96 }}>
        {inch ?? ''}
      </Txt>
    </View>
  );
}

type Found = NonNullable<ReturnType<typeof useAnswer>>;

function Numbers({ found }: { found: Found }) {
  const { suggestion: s, state, situation } = found;
  const axial = isAxial(situation.tool);
  return (
    <View style={{ gap: 2 }}>
      <Both label="Spindle speed" metric={`${formatNumber(s.rpm, 0)} rpm`} testID="answer-rpm" />
      <Both label="Feed" metric={formatFeed(s.feed, 'mm')} inch={formatFeed(s.feed, 'inch')} testID="answer-feed" />
      {!axial && (
        <Both label="Entry feed" metric={formatFeed(s.entryFeed, 'mm')} inch={formatFeed(s.entryFeed, 'inch')} />
      )}
      <Both
        label={axial ? 'Feed a turn' : 'Feed a tooth'}
        metric={thin(axial ? s.feed / s.rpm : state.chipLoad, 'mm')}
        inch={thin(axial ? s.feed / s.rpm : state.chipLoad, 'inch')}
      />
      <Both
        label="Surface speed"
        metric={formatSurfaceSpeed(state.surfaceSpeed, 'mm')}
        inch={formatSurfaceSpeed(state.surfaceSpeed, 'inch')}
      />
      <Both
        label="Metal a minute"
        metric={`${formatNumber(state.removalRate, 1)} cm³`}
        inch={`${formatNumber(state.removalRate / 16.387, 2)} in³`}
      />
      <Both
        label="Power"
        metric={`${formatNumber(state.power, 2)} kW`}
        inch={`${formatNumber(state.power * 1.34102, 2)} hp`}
      />
      <Both
        label="Torque"
        metric={`${formatNumber(state.torque, 2)} N·m`}
        inch={`${formatNumber(state.torque * 8.85075, 1)} in·lbf`}
      />
      {!axial && (
        <Both
          label="Side force"
          metric={`${formatNumber(state.force, 0)} N`}
          inch={`${formatNumber(state.force / 4.44822, 0)} lbf`}
        />
      )}
      {!axial && (
        <Both label="Wall off by" metric={thin(state.deflection, 'mm')} inch={thin(state.deflection, 'inch')} />
      )}
      {!axial && <Both label="Floor step" metric={thin(state.floorStep, 'mm')} inch={thin(state.floorStep, 'inch')} />}
    </View>
  );
}

/** How to go in and how to finish, for the tool at hand. */
function Habits({ found, depth, onDepth }: { found: Found; depth: number; onDepth: (mm: number) => void }) {
  const { tool, material } = found.situation;
  if (formOf(tool) === 'drill') {
    const peck = suggestPeck(tool.diameter, depth, material.longChips, tool.throughCoolant);
    return (
      <>
        <LengthField label="Hole depth" unit="mm" value={depth} min={0.1} max={2000} onChange={onDepth} />
        <Txt>
          {peck.method === 'straight'
            ? 'Straight down'
            : peck.method === 'peck'
              ? `Pecks of ${formatLength(peck.peck, 'mm')}, out each time`
              : `Break the chip every ${formatLength(peck.peck, 'mm')}`}
          : {peck.reason}.
        </Txt>
      </>
    );
  }
  if (isAxial(tool)) return null;
  const entry = suggestEntry(tool, material, found.situation.boldness);
  const finish = suggestFinish(tool);
  return (
    <>
      <Txt>
        Enter by a helix of {formatLength(entry.diameter, 'mm')} at {formatNumber(entry.angle, 1)}°: {entry.reason}.
      </Txt>
      <Txt>
        For a finish leave {formatLength(finish.allowance, 'mm')} and feed up to {thin(finish.chipLoad, 'mm')} a tooth:
        marks stay below {thin(finish.marks, 'mm')}.
      </Txt>
    </>
  );
}

function KeepIt({ found }: { found: Found }) {
  const router = useRouter();
  const { save, items } = useShelf('recipes');
  const { tool, material, machine, ae, ap, boldness = 0.5 } = found.situation;
  const [name, setName] = useState('');
  const [told, setTold] = useState<string>();
  const keep = async () => {
    let n = items.length + 1;
    while (items.some((r) => r.id === `r${n}`)) n++;
    try {
      await save(0, {
        id: `r${n}`,
        name: name.trim() || `${tool.name} in ${material.name}`.slice(0, 120),
        tool,
        material,
        machine,
        ae: Math.max(0.001, ae),
        ap: Math.max(0.001, ap),
        rpm: found.suggestion.rpm,
        feed: found.suggestion.feed,
        boldness,
        note: '',
        keptAt: new Date().toISOString(),
      });
      router.push('/recipes');
    } catch (e) {
      setTold((e as ApiError).message);
    }
  };
  return (
    <Card>
      <TextInput
        mode="outlined"
        dense
        label="Name of the recipe"
        aria-label="Name of the recipe"
        placeholder={`${tool.name} in ${material.name}`}
        value={name}
        onChangeText={(t) => setName(t.slice(0, 120))}
      />
      {told && <Txt tone="danger">▲ {told}</Txt>}
      <Button mode="contained" onPress={() => void keep()} disabled={!found.suggestion.possible}>
        Keep as a recipe
      </Button>
    </Card>
  );
}

/** Speeds and feeds for somebody standing at a machine: what goes in on top, everything out below. */
export function CalculatorPage() {
  const router = useRouter();
  const wide = useWide();
  const { tools, holders, machines, materials } = useShop();
  const { told, tell } = useTold();
  const [depth, setDepth] = useState(20);
  const tool = tools.find((t) => t.id === told.toolId) ?? tools[0];
  const material = materials.find((m) => m.id === told.materialId) ?? materials[0];
  const machine = machines.find((m) => m.id === told.machineId) ?? machines[0];
  const found = useAnswer(told, tool, material, machine);
  const calm = useDeferredValue(found);
  if (!found || !calm) return <Page title="Calculator">{null}</Page>;
  const axial = isAxial(found.situation.tool);
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
  const inputs = (
    <Card>
      <Choices
        fold
        label="Material"
        value={material.id}
        options={materials.map((m) => ({ value: m.id, label: m.name }))}
        onChange={(materialId) => tell({ materialId })}
      />
      <Choices
        fold
        label="Tool"
        value={tool.id}
        options={tools.map((t) => ({ value: t.id, label: `T${t.number} ${t.name}` }))}
        onChange={(toolId) => tell({ toolId, ae: 0, ap: 0 })}
      />
      <Choices
        fold
        label="Machine"
        value={machine.id}
        options={machines.map((m) => ({ value: m.id, label: m.name }))}
        onChange={(machineId) => tell({ machineId })}
      />
      {!axial && (
        <Fields>
          <LengthField
            label="Bite"
            testID="calc-ae"
            unit="mm"
            value={found.situation.ae}
            min={0.001}
            max={tool.diameter}
            shareOf={tool.diameter}
            onChange={(ae) => tell({ ae })}
          />
          <LengthField
            label="Layer"
            testID="calc-ap"
            unit="mm"
            value={found.situation.ap}
            min={0.001}
            max={tool.fluteLength}
            shareOf={tool.diameter}
            onChange={(ap) => tell({ ap })}
          />
        </Fields>
      )}
      {!axial && (told.ae > 0 || told.ap > 0) && (
        <Button compact style={{ alignSelf: 'flex-start' }} onPress={() => tell({ ae: 0, ap: 0 })}>
          Take {formatLength(found.bite.ae, 'mm')} and {formatLength(found.bite.ap, 'mm')}
        </Button>
      )}
      <BoldnessSlide value={told.boldness} onChange={(boldness) => tell({ boldness })} />
      <Fields>
        <NumberField
          label="Speed I was told"
          suffix="rpm"
          help="0 for none"
          value={told.rpm}
          min={0}
          max={200000}
          onChange={(rpm) => tell({ rpm })}
        />
        <NumberField
          label="Feed at most"
          suffix="mm/min"
          help="0 for none"
          value={told.feed}
          min={0}
          max={200000}
          onChange={(feed) => tell({ feed })}
        />
      </Fields>
    </Card>
  );
  const answers = (
    <Card>
      <View aria-live="polite">
        <Numbers found={found} />
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.m }}>
        {found.gauges.map((g) => (
          <GaugeBar key={g.id} gauge={g} />
        ))}
      </View>
      {(told.rpm > 0 || told.feed > 0) && (
        <Txt kind="small" tone="quiet">
          Against the suggestion without it: {found.departure.text}.
        </Txt>
      )}
      <Row>
        <Lifts find={() => lifts(found.situation, { tools, holders })} unit="mm" onTake={take} />
      </Row>
      <Why suggestion={found.suggestion} unit="mm" goTo={goTo} />
    </Card>
  );
  const pictures = (
    <>
      {!axial && (
        <Card>
          <BitePicture
            tool={calm.situation.tool}
            state={calm.state}
            ae={calm.situation.ae}
            ap={calm.situation.ap}
            unit="mm"
          />
        </Card>
      )}
      <Card>
        <Habits found={calm} depth={depth} onDepth={setDepth} />
        {material.chips !== '' && <Txt kind="small">Good chips: {material.chips}</Txt>}
        {material.caution && <Txt kind="small">◆ {material.caution}</Txt>}
      </Card>
      <Card>
        <PowerCurve machine={machine} here={{ rpm: calm.suggestion.rpm, kW: calm.state.power }} />
        {!axial && (
          <BiteCharts situation={calm.situation} rpm={calm.suggestion.rpm} feed={calm.suggestion.feed} unit="mm" />
        )}
      </Card>
    </>
  );
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
      {headline}
      <View
        style={{ flexDirection: wide ? 'row' : 'column', gap: SPACE.m, alignItems: wide ? 'flex-start' : 'stretch' }}
      >
        <View style={{ flex: wide ? 1 : undefined, gap: SPACE.m, minWidth: 0 }}>
          {inputs}
          {answers}
          <KeepIt found={found} />
        </View>
        <View style={{ flex: wide ? 1 : undefined, gap: SPACE.m, minWidth: 0 }}>{pictures}</View>
      </View>
      <Txt kind="small" tone="quiet">
        Estimates to start from. Guards closed, eye protection on; the machine maker’s limits, the tool maker’s data and
        your local rules decide.
      </Txt>
    </Page>
  );
}
