import { Pressable, View } from 'react-native';
import { InputPlace, LengthUnit, LimitStep, Suggestion, Working, formatFeed, formatNumber } from '@tidypath/core';
import { SIZE, SPACE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Fold } from '../Fold';
import { Txt } from '../Txt';

interface Props {
  suggestion: Suggestion;
  unit: LengthUnit;
  /** Shows only what leads to one number. */
  of?: Working['of'];
  /** Goes to where an input can be changed; undefined where it cannot from here. */
  goTo?: (place: InputPlace) => (() => void) | undefined;
}

function Chain({ steps, unit }: { steps: LimitStep[]; unit: LengthUnit }) {
  const text = (s: LimitStep) =>
    !Number.isFinite(s.allows)
      ? 'no limit'
      : s.on === 'rpm'
        ? `${formatNumber(s.allows, 0)} rpm`
        : formatFeed(s.allows, unit);
  return (
    <View role="list" aria-label="Limits, tightest first">
      {steps.map((s) => (
        <View key={`${s.on}-${s.id}-${s.label}`} role="listitem" style={{ flexDirection: 'row', gap: SPACE.s }}>
          <Txt kind="small" bold={s.governs} style={{ flex: 1 }}>
            {s.governs ? '▸ ' : '   '}
            {s.label}
          </Txt>
          <Txt kind="small" mono bold={s.governs}>
            {text(s)}
          </Txt>
        </View>
      ))}
    </View>
  );
}

/** The steps of a working, one under the other. */
export function Steps({ steps, goTo }: { steps: Working[]; goTo: Props['goTo'] }) {
  return steps.map((step, i) => <Step key={i} step={step} goTo={goTo} />);
}

function Step({ step, goTo }: { step: Working; goTo: Props['goTo'] }) {
  const palette = usePalette();
  return (
    <View style={{ gap: 2 }}>
      <Txt bold kind="small">
        {step.what}: {step.result}
      </Txt>
      <Txt kind="small" mono>
        {step.formula}
      </Txt>
      <Txt kind="small" tone="quiet">
        {step.source}
      </Txt>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.s }}>
        {step.inputs.map((input) => {
          const go = goTo?.(input.at);
          return go ? (
            <Pressable
              key={input.name}
              role="button"
              aria-label={`Change ${input.name} ${input.text}`}
              onPress={go}
              style={{
                minHeight: SIZE.touch,
                justifyContent: 'center',
                borderBottomWidth: 1,
                borderStyle: 'dotted',
                borderColor: palette.accent,
              }}
            >
              <Txt kind="small" tone="accent">
                {input.name} {input.text}
              </Txt>
            </Pressable>
          ) : null;
        })}
      </View>
    </View>
  );
}

/** The working behind the suggested numbers: formulas with the numbers put in, sources, inputs to tap, and the chain of limits. */
export function Why({ suggestion, unit, of, goTo }: Props) {
  const steps = suggestion.working.filter((w) => !of || w.of === of || (of !== 'rpm' && w.of === 'feed'));
  const chain = suggestion.chain.filter((s) => !of || (of === 'rpm' ? s.on === 'rpm' : s.on === 'feed'));
  return (
    <Fold label="Why?" testID="why">
      {() => (
        <>
          <Steps steps={steps} goTo={goTo} />
          <View style={{ gap: SPACE.xs }}>
            <Txt bold kind="small">
              What each limit alone would allow
            </Txt>
            <Chain steps={chain} unit={unit} />
          </View>
        </>
      )}
    </Fold>
  );
}
