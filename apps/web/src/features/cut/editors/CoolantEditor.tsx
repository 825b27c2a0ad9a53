import { Button } from 'react-native-paper';
import { Coolant, adviseCoolant, coolantsOf, editOperation } from '@tidypath/core';
import { Row } from '../../../ui/Card';
import { Choices, plainOptions } from '../../../ui/Choices';
import { Txt } from '../../../ui/Txt';
import type { EditorProps } from './types';

/** What is switched on: of what the machine has, with the one advised for tool and material, and why. */
export function CoolantEditor({ job, operation, edit }: EditorProps) {
  const known = coolantsOf(job);
  const offered = known.includes(operation.coolant) ? known : [...known, operation.coolant];
  const tool = job.tools.find((t) => t.id === operation.toolId);
  const advised = tool && adviseCoolant(tool, job.material, known);
  const set = (coolant: Coolant) => edit((j) => editOperation(j, operation.id, (o) => ({ ...o, coolant })));
  return (
    <>
      <Choices label="Coolant" value={operation.coolant} options={plainOptions(offered)} onChange={set} />
      {advised && (
        <Row>
          <Txt kind="small" tone="quiet" style={{ flexShrink: 1 }}>
            Advised: {advised.coolant}, {advised.why}.
          </Txt>
          {advised.coolant !== operation.coolant && (
            <Button compact mode="outlined" onPress={() => set(advised.coolant)}>
              Take {advised.coolant}
            </Button>
          )}
        </Row>
      )}
    </>
  );
}
