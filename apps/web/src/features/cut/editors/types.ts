import type { InputPlace, Insight, Job, Operation } from '@tidypath/core';
import type { Field } from '../sentences/types';

/** What every editor of a sentence's value works with. */
export interface EditorProps {
  job: Job;
  operation: Operation;
  insight: Insight | undefined;
  edit: (next: (job: Job) => Job, tag?: string) => void;
  /** Opens another value of the sentence. */
  onField: (field: Field) => void;
}

export type GoTo = (place: InputPlace) => (() => void) | undefined;
