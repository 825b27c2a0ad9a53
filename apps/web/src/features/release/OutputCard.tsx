import { View } from 'react-native';
import { Switch, TextInput } from 'react-native-paper';
import { Setup, controllerOf, programOf, withSetup } from '@tidypath/core';
import { useJob } from '../../session/JobContext';
import { SPACE } from '../../theme/theme';
import { Card } from '../../ui/Card';
import { Choices, UNITS, plainOptions } from '../../ui/Choices';
import { NumberField } from '../../ui/NumberField';
import { Txt } from '../../ui/Txt';

/** How the program is written: its unit, its number and title at the control. */
export function OutputCard() {
  const { job, setup, edit } = useJob();
  const controller = controllerOf(job);
  const { number, name, file } = programOf(job, setup);
  const set = (more: Partial<Setup>, tag: string) =>
    edit((j) => withSetup(j, { ...setup, ...more }), `${tag}-${setup.id}`);
  return (
    <Card testID="output">
      <Choices
        label="Program in"
        value={job.output.unit}
        onChange={(unit) => edit((j) => ({ ...j, output: { ...j.output, unit } }))}
        options={plainOptions(UNITS)}
      />
      <NumberField
        label="Program number"
        value={number}
        min={1}
        max={9999}
        whole
        help="stands in the first line where the control numbers its programs"
        onChange={(programNumber) => set({ programNumber }, 'program-number')}
      />
      <TextInput
        mode="outlined"
        label="Title"
        aria-label="Program title"
        value={setup.programTitle ?? ''}
        placeholder={name}
        maxLength={60}
        onChangeText={(title) => set({ programTitle: title || undefined }, 'program-title')}
      />
      <Txt kind="small" tone="quiet">
        The file is called {file}; left empty, the title is that of job and setup.
      </Txt>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s }}>
        <Switch
          value={job.output.lineNumbers}
          onValueChange={(lineNumbers) => edit((j) => ({ ...j, output: { ...j.output, lineNumbers } }))}
          accessibilityLabel="Line numbers"
        />
        <Txt>Line numbers</Txt>
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s }}>
        <Switch
          value={!!job.output.restarts}
          onValueChange={(restarts) => edit((j) => ({ ...j, output: { ...j.output, restarts } }))}
          accessibilityLabel="Begins at each tool"
        />
        <Txt style={{ flexShrink: 1 }}>Can be begun at each tool: all modes are stated anew there</Txt>
      </View>
      {(controller?.subprograms || job.output.subprograms) && (
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: SPACE.s }}>
          <Switch
            value={!!job.output.subprograms}
            onValueChange={(subprograms) => edit((j) => ({ ...j, output: { ...j.output, subprograms } }))}
            accessibilityLabel="Copies as subprograms"
          />
          <Txt style={{ flexShrink: 1 }}>What is cut again elsewhere is written once and called</Txt>
        </View>
      )}
    </Card>
  );
}
