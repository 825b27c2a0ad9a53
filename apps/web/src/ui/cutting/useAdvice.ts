import { useEffect, useState } from 'react';
import { Advised, Job, Tool, hashOf } from '@tidypath/core';
import { engine } from '../../compute/engine';

/** Which tools of the rack suit a feature of a job; undefined until it has been worked out. */
export function useAdvice(job: Job, featureId: string | undefined, rack: Tool[]): Advised | undefined {
  const [found, setFound] = useState<{ key: string; advised: Advised }>();
  const { part, material, machine, boldness, unit } = job;
  const key = hashOf({ part, material, machine, boldness, unit, featureId, rack });
  useEffect(() => {
    if (!featureId || rack.length === 0) return;
    let wanted = true;
    void engine.advise(job, featureId, rack).then((advised) => wanted && setFound({ key, advised }));
    return () => {
      wanted = false;
    };
    // The key stands for everything the advice depends on.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return found?.key === key ? found.advised : undefined;
}
