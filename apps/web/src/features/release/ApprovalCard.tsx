import { useState } from 'react';
import { Button, TextInput } from 'react-native-paper';
import useSWR from 'swr';
import { Answer, AnswerEntry, LOOKED_AT, ReleaseView, rowOf } from '@tidypath/core';
import { ApiError, api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { Card, Row } from '../../ui/Card';
import { Tick } from '../../ui/Tick';
import { Txt } from '../../ui/Txt';
import { dayText } from './words';

const ANSWER_WORDS: Record<Answer, string> = {
  approve: 'approved it',
  'approve for single block': 'approved it for single block',
  refuse: 'refused it',
};

/** What was answered to a release, and, for whoever may, an answer. */
export function ApprovalCard({ view, onAnswered }: { view: ReleaseView; onAnswered: () => void }) {
  const { data: people } = useSWR(KEYS.people, api.people);
  const me = people?.people.find((p) => p.id === people.here);
  const mayAnswer = !!me?.roles.includes('approver');
  const [remark, setRemark] = useState('');
  const [checks, setChecks] = useState<AnswerEntry['checks']>([]);
  const [failed, setFailed] = useState('');
  const answer = (said: Answer) =>
    void api.answer(view.id, { answer: said, root: view.root, remark: remark.trim(), checks }).then(
      () => {
        setFailed('');
        setRemark('');
        setChecks([]);
        onAnswered();
      },
      (error: ApiError) => setFailed(error.message),
    );
  if (!view.needsApproval && view.answers.length === 0 && !mayAnswer) return null;
  return (
    <Card testID="approval">
      <Txt heading bold>
        Approval
      </Txt>
      {view.answers.map((a, i) => (
        <Txt key={i}>
          {a.who} {ANSWER_WORDS[a.answer]}, {dayText(a.at)}
          {a.checks.length > 0 ? `, looked at ${rowOf(a.checks)}` : ''}
          {a.remark ? `: ${a.remark}` : ''}
        </Txt>
      ))}
      {mayAnswer ? (
        <>
          <Txt>You looked at</Txt>
          {LOOKED_AT.filter((what) => view.difference || what !== 'what differs from the last').map((what) => (
            <Tick
              key={what}
              label={what}
              on={checks.includes(what)}
              onPress={() => setChecks((all) => (all.includes(what) ? all.filter((c) => c !== what) : [...all, what]))}
            />
          ))}
          <TextInput
            mode="outlined"
            label="Remark"
            aria-label="Remark"
            value={remark}
            maxLength={1000}
            onChangeText={setRemark}
          />
          <Row>
            <Button mode="contained" disabled={checks.length === 0} onPress={() => answer('approve')} testID="approve">
              Approve
            </Button>
            <Button mode="outlined" disabled={checks.length === 0} onPress={() => answer('approve for single block')}>
              For single block
            </Button>
            <Button mode="outlined" onPress={() => answer('refuse')} testID="refuse">
              Refuse
            </Button>
          </Row>
          <Txt kind="small" tone="quiet">
            You answer for this very program, how it is held, its tools and its machine; any of them another, and the
            approval is void. It stands for thirty days.
          </Txt>
        </>
      ) : (
        <Txt kind="small" tone="quiet">
          Somebody who may approve looks at it here, chosen on their device on the Shop page. Nobody approves what they
          released themselves.
        </Txt>
      )}
      {failed !== '' && (
        <Txt tone="danger" live testID="answer-failed">
          ▲ {failed}
        </Txt>
      )}
    </Card>
  );
}
