import { memo } from 'react';
import { View } from 'react-native';
import { InputPlace, Lift, formatFeed, formatNumber, formatSurfaceSpeed, isAxial, lifts, thin } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { GaugeBar } from '../../ui/GaugeBar';
import { Txt } from '../../ui/Txt';
import { Lifts } from '../../ui/cutting/Lifts';
import { Why } from '../../ui/cutting/Why';
import { useShop } from '../../ui/cutting/useShop';
import type { Found } from './useCalculator';

/** One number in both unit systems. */
const Both = memo(function Both({
  label,
  metric,
  inch,
  testID,
}: {
  label: string;
  metric: string;
  inch?: string;
  testID?: string;
}) {
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
});

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

interface Props {
  found: Found;
  /** Whether somebody gave a speed or a feed. */
  given: boolean;
  onTake: (lift: Lift) => void;
  goTo: (place: InputPlace) => (() => void) | undefined;
}

/** Everything the engine says about the cut, and why. */
export function Answers({ found, given, onTake, goTo }: Props) {
  const { tools, holders } = useShop();
  return (
    <Card>
      <View aria-live="polite">
        <Numbers found={found} />
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.m }}>
        {found.gauges.map((g) => (
          <GaugeBar key={g.id} gauge={g} />
        ))}
      </View>
      {given && (
        <Txt kind="small" tone="quiet">
          Against the suggestion without it: {found.departure.text}.
        </Txt>
      )}
      <Lifts find={() => lifts(found.situation, { tools, holders })} unit="mm" onTake={onTake} />
      <Why suggestion={found.suggestion} unit="mm" goTo={goTo} />
    </Card>
  );
}
