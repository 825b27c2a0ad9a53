import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import { CalledTool, Tool, guessTool, withCalledTool } from '@tidypath/core';
import { SPACE } from '../../theme/theme';
import { Card, Row } from '../../ui/Card';
import { Choices } from '../../ui/Choices';
import { pickText } from '../../ui/files';
import { Txt } from '../../ui/Txt';
import { useShop } from '../../ui/cutting/useShop';
import { useJob } from '../../session/JobContext';

const FILES = '.nc,.ngc,.tap,.cnc,.gcode,.txt,text/plain';

/** A program from anywhere, proved over this setup's stock instead of the job's own. */
export function OtherProgram() {
  const { computed } = useJob();
  const name = computed.other?.name;
  const open = async () => {
    const file = await pickText(FILES);
    if (file) computed.proveOther(file);
  };
  return (
    <Card testID="other-program">
      <Txt heading>A program from elsewhere</Txt>
      <Txt>
        {name
          ? `“${name}” is proved here; the job’s own program stays as it is.`
          : 'Prove any milling program over this stock, with these tools.'}
      </Txt>
      <Row>
        <Button mode="outlined" onPress={() => void open()} testID="open-program">
          Open a program
        </Button>
        {name !== undefined && (
          <Button mode="outlined" onPress={computed.backToOwn}>
            Back to the job’s own
          </Button>
        )}
      </Row>
    </Card>
  );
}

/** Which tools a program calls that the job does not have; what each is, is asked once and kept in the job. */
export function CalledTools({ called }: { called: CalledTool[] }) {
  const { job, edit } = useJob();
  const { tools: rack } = useShop();
  const missing = called.filter((c) => !job.tools.some((t) => t.number === c.number));
  if (missing.length === 0) return null;
  return (
    <Card testID="called-tools">
      <Txt heading>Which tools are these?</Txt>
      {missing.map((c) => (
        <CalledToolRow
          key={c.number}
          called={c}
          rack={rack}
          onTake={(tool) => edit((j) => withCalledTool(j, c.number, tool))}
        />
      ))}
    </Card>
  );
}

function CalledToolRow({ called, rack, onTake }: { called: CalledTool; rack: Tool[]; onTake: (tool: Tool) => void }) {
  const guess = useMemo(() => guessTool(called.remark, rack), [called.remark, rack]);
  const [chosen, setChosen] = useState<string>();
  const id = chosen ?? guess?.id;
  const tool = rack.find((t) => t.id === id);
  return (
    <View style={{ gap: SPACE.xs }}>
      <Txt>
        T{called.number}
        {called.remark ? ` · “${called.remark}”` : ''}
      </Txt>
      <Choices
        label={guess && !chosen ? 'From what the program says' : 'It is'}
        value={id}
        options={rack.map((t) => ({ value: t.id, label: t.name }))}
        onChange={setChosen}
        fold
      />
      <Button
        mode="outlined"
        disabled={!tool}
        onPress={() => tool && onTake(tool)}
        style={{ alignSelf: 'flex-start' }}
        testID={`take-T${called.number}`}
      >
        That is T{called.number}
      </Button>
    </View>
  );
}
