import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Button } from 'react-native-paper';
import { Job, Setup, softJawsJob } from '@tidypath/core';
import type { ApiError } from '../../api/client';
import { makeJob } from '../../api/outbox';
import { Txt } from '../../ui/Txt';

/** Makes the job that cuts the soft jaws of a setup, and goes to it. */
export function JawsJob({ job, setup }: { job: Job; setup: Setup }) {
  const router = useRouter();
  const [why, setWhy] = useState('');
  const make = async () => {
    const jaws = softJawsJob(job, setup);
    if (!jaws) return setWhy('The part has no outside yet.');
    try {
      router.push(`/job/${await makeJob(jaws)}/cut`);
    } catch (e) {
      setWhy((e as ApiError).message);
    }
  };
  return (
    <>
      <Button compact mode="outlined" onPress={() => void make()} testID="jaws-job" style={{ alignSelf: 'flex-start' }}>
        Make the job that cuts these jaws
      </Button>
      <Txt kind="small" tone="quiet">
        A job of its own, its zero on the outer corner of the fixed jaw; its route waits there to be proposed.
      </Txt>
      {why !== '' && <Txt kind="small">◆ {why}</Txt>}
    </>
  );
}
