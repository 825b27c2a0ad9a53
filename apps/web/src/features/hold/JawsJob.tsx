import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Button } from 'react-native-paper';
import { Job, Setup, softJawsJob } from '@tidypath/core';
import type { ApiError } from '../../api/client';
import { makeJob } from '../../api/outbox';
import { Txt } from '../../ui/Txt';

/** Makes the job that cuts the soft jaws of a setup; it stands in the list of jobs then. */
export function JawsJob({ job, setup }: { job: Job; setup: Setup }) {
  const router = useRouter();
  const [said, setSaid] = useState('');
  const [made, setMade] = useState(false);
  const make = async () => {
    const jaws = softJawsJob(job, setup);
    if (!jaws) return setSaid('The part has no outside yet.');
    try {
      await makeJob(jaws);
      setMade(true);
      setSaid(`“${jaws.name}” stands in the list of jobs; its route waits there to be proposed.`);
    } catch (e) {
      setSaid((e as ApiError).message);
    }
  };
  return (
    <>
      <Button
        compact
        mode="outlined"
        onPress={made ? () => router.push('/') : () => void make()}
        testID="jaws-job"
        style={{ alignSelf: 'flex-start' }}
      >
        {made ? 'To the jobs' : 'Make the job that cuts these jaws'}
      </Button>
      <Txt kind="small" tone={said ? undefined : 'quiet'} testID="jaws-said">
        {said || 'A job of its own, its zero on the outer corner of the fixed jaw.'}
      </Txt>
    </>
  );
}
