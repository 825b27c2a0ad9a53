import { format } from 'date-fns/format';
import { useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import useSWR, { useSWRConfig } from 'swr';
import { Lesson, formatNumber } from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { SPACE } from '../../theme/theme';
import { Card, Row } from '../Card';
import { Txt } from '../Txt';
import { PointsFigure } from './PointsFigure';

/** How long edges lasted, one after the other. */
function LastedChart({ lasted }: { lasted: number[] }) {
  const text = (v: number) => formatNumber(v, 2);
  return (
    <PointsFigure
      title="Edges, share of the life on the card"
      summary={`${lasted.length} edges, from ${text(Math.min(...lasted))} to ${text(Math.max(...lasted))} of the life on the card`}
      values={lasted}
      text={text}
      along="edge after edge"
      levels={[{ value: 1, name: 'as its card says', look: 'aim' }]}
    />
  );
}

/** One thing that is taught: as it stands, as the log has it, from what. */
function LessonRow({ lesson, onLearn }: { lesson: Lesson; onLearn: (what: 'take' | 'undo') => void }) {
  const { what, about, now, proposed, evidence, isSo, taken, lasted } = lesson;
  return (
    <View testID={`lesson-${what}`} style={{ gap: SPACE.xs }}>
      <Txt bold>{about}</Txt>
      <Txt>Counted now: {now}.</Txt>
      {taken && (
        <Row>
          <Txt kind="small" tone="quiet" testID={`${what}-taken`} style={{ flex: 1, minWidth: 200 }}>
            Taken over on {format(new Date(taken.at), 'd MMM yyyy, HH:mm')}
            {taken.who ? ` by ${taken.who}` : ''} from {taken.evidence}; before: {taken.before}.
          </Txt>
          <Button compact testID={`${what}-undo`} onPress={() => onLearn('undo')}>
            Take it back
          </Button>
        </Row>
      )}
      {lasted && lasted.length > 1 && <LastedChart lasted={lasted} />}
      {isSo && <Txt>✓ As the log says, from {evidence}.</Txt>}
      {!isSo && proposed === undefined && <Txt tone="quiet">{evidence}.</Txt>}
      {proposed !== undefined && (
        <>
          <Txt testID={`${what}-proposed`}>
            From {evidence}: {proposed}.
          </Txt>
          <Button
            mode="contained"
            testID={`${what}-take`}
            style={{ alignSelf: 'flex-start' }}
            onPress={() => onLearn('take')}
          >
            Take it over
          </Button>
        </>
      )}
    </View>
  );
}

/** What the log teaches, of one thing of the shop or of all: taken over with a tap, taken back with a tap. */
export function LessonsCard({ item, title }: { item?: string; title: string }) {
  const { data } = useSWR(KEYS.lessons(item), () => api.lessons(item), { shouldRetryOnError: false });
  const { mutate } = useSWRConfig();
  const [failed, setFailed] = useState('');
  if (!data || data.length === 0) return null;
  const learn = (id: string, what: 'take' | 'undo') => {
    setFailed('');
    api.learn(id, what).then(
      () => mutate(KEYS.lessons(item)),
      (error: ApiError) => setFailed(error.message),
    );
  };
  return (
    <Card testID="lessons">
      <Txt heading kind="large">
        {title}
      </Txt>
      {data.map((lesson) => (
        <LessonRow key={lesson.id} lesson={lesson} onLearn={(what) => learn(lesson.id, what)} />
      ))}
      {failed !== '' && <Txt tone="danger">▲ {failed}</Txt>}
    </Card>
  );
}
