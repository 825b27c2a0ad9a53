import { useState } from 'react';
import { Button } from 'react-native-paper';
import { Feature, Job, TOLD, Told } from '@tidypath/core';
import { engine } from '../../compute/engine';
import { Card, Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';
import { MEANING_WORDS } from './words';

interface Props {
  job: Job;
  /** The face that was tapped. */
  face: number;
  /** The feature it belongs to. */
  of?: Feature;
  onTold: (feature: Feature) => void;
}

/** What a tapped face is part of, and what somebody may say it is instead. */
export function ToldCard({ job, face, of, onTold }: Props) {
  const [none, setNone] = useState<{ face: number; told: Told }>();
  const tell = async (told: Told) => {
    const feature = await engine.madeBy(job, face, told).catch(() => null);
    if (feature) onTold(feature);
    else setNone({ face, told });
  };
  return (
    <Card>
      <Txt>
        {of ? (
          <>
            The face belongs to <Txt bold>{of.name}</Txt>. It is rather part of
          </>
        ) : (
          'The face belongs to no feature. It is part of'
        )}
      </Txt>
      <Row>
        {TOLD.map((told) => (
          <Button key={told} compact mode="outlined" onPress={() => void tell(told)} testID={`told-${told}`}>
            {`a ${MEANING_WORDS[told]}`}
          </Button>
        ))}
      </Row>
      {none?.face === face && (
        <Txt kind="small" tone="danger" live>
          ▲ From no side does this face make a {MEANING_WORDS[none.told]}. Tap the floor of a pocket, the top of a boss
          or the wall of a hole.
        </Txt>
      )}
    </Card>
  );
}
