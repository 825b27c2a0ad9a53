import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { editOperation, formatFeed, formatNumber, isBeam, liftsOf, takeLift } from '@tidypath/core';
import { SPACE } from '../../../theme/theme';
import { NumberField } from '../../../ui/NumberField';
import { Txt } from '../../../ui/Txt';
import { BoldnessSlide } from '../../../ui/cutting/BoldnessSlide';
import { FeedField, SpeedField } from '../../../ui/cutting/SpeedField';
import { Lifts } from '../../../ui/cutting/Lifts';
import { Why } from '../../../ui/cutting/Why';
import { useShop } from '../../../ui/cutting/useShop';
import { useGoTo } from './useGoTo';
import type { EditorProps } from './types';

type Which = 'rpm' | 'feed' | 'entryFeed';

const LABEL: Record<Which, string> = { rpm: 'Spindle speed', feed: 'Feed', entryFeed: 'Entry feed' };
const sentence = (text: string) => `${text[0].toUpperCase()}${text.slice(1)}.`;
/** Departures smaller than this are as suggested. */
const SAME = 0.005;

/** Speed and feeds: the value, the suggested one a tap away, what a departure costs, the working, and what would lift the limit. */
export function SpeedEditor({ job, operation, insight, edit, onField, which }: EditorProps & { which: Which }) {
  const { tools, holders } = useShop();
  const value = operation.speeds[which];
  const tool = job.tools.find((t) => t.id === operation.toolId);
  const set = (v: number) =>
    edit(
      (j) => editOperation(j, operation.id, (o) => ({ ...o, speeds: { ...o.speeds, [which]: v } })),
      `${operation.id}-${which}`,
    );
  const text = (v: number) => (which === 'rpm' ? `${formatNumber(v, 0)} rpm` : formatFeed(v, job.unit));
  const goTo = useGoTo({ job, operation, onField });
  const suggested = insight?.suggestion[which];
  const beam = !!tool && isBeam(tool);
  const Field = which === 'rpm' ? SpeedField : FeedField;
  const turning = { diameter: tool?.diameter ?? 1, flutes: tool?.flutes ?? 1, rpm: beam ? 0 : operation.speeds.rpm };
  const field = {
    autoFocus: true,
    testID: 'value-field',
    value,
    min: which === 'rpm' ? Math.max(1, job.machine.minRpm) : 0.1,
    max: which === 'rpm' ? job.machine.maxRpm : job.machine.maxFeed,
    onChange: set,
  };
  return (
    <>
      {beam && which === 'rpm' ? (
        <NumberField label="Power, as the S word" step={100} whole {...field} />
      ) : (
        <Field {...field} label={LABEL[which]} turning={turning} unit={job.unit} />
      )}
      {beam && (
        <Txt kind="small" tone="quiet">
          From the cut chart of your machine for this material and thickness; kept as the beam’s own data, it is
          proposed from then on.
        </Txt>
      )}
      {insight && suggested !== undefined && (
        <>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: SPACE.s }}>
            <Txt kind="small" tone="quiet" style={{ flexShrink: 1 }} testID="departure">
              {sentence(insight.departure.text)}
            </Txt>
            {Math.abs(suggested - value) > SAME * suggested && (
              <Button compact mode="outlined" onPress={() => set(suggested)}>
                Take {text(suggested)}
              </Button>
            )}
          </View>
          <BoldnessSlide value={job.boldness} onChange={(boldness) => edit((j) => ({ ...j, boldness }), 'boldness')} />
          <Txt kind="small">{insight.suggestion.limitText}</Txt>
          <Lifts
            find={() => liftsOf(job, operation, { tools, holders })}
            unit={job.unit}
            onTake={(lift) => edit((j) => takeLift(j, operation.id, lift, { tools, holders }))}
          />
          <Why suggestion={insight.suggestion} unit={job.unit} of={which} goTo={goTo} />
        </>
      )}
    </>
  );
}
