import { useState } from 'react';
import { Button, TextInput } from 'react-native-paper';
import { Job } from '@tidypath/core';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { useJob } from './JobContext';

const MOST_TAGS = 20;
const LONGEST_TAG = 30;

/** "vane, aluminium" as tags, each once. */
export const tagsOf = (text: string): string[] =>
  [...new Set(text.split(',').map((t) => t.trim().slice(0, LONGEST_TAG)))].filter(Boolean).slice(0, MOST_TAGS);

/** What people find the job by: its name, the customer's number, tags; and a note. Left out where empty. */
export function DetailsSheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { job, edit } = useJob();
  // What is being typed need not be a name or a list yet.
  const [name, setName] = useState<string>();
  const [tags, setTags] = useState<string>();
  const set = (more: Partial<Job>) => edit((j) => ({ ...j, ...more }), `details-${Object.keys(more).join()}`);
  const done = () => {
    setName(undefined);
    setTags(undefined);
    onClose();
  };
  return (
    <Sheet title="About the job" open={open} onClose={done}>
      <TextInput
        mode="outlined"
        label="Name"
        aria-label="Name"
        value={name ?? job.name}
        onChangeText={(text) => {
          setName(text);
          if (text.trim()) set({ name: text.slice(0, 120) });
        }}
        testID="job-name"
      />
      <TextInput
        mode="outlined"
        label="Customer’s number"
        aria-label="Customer’s number"
        value={job.customerNumber ?? ''}
        onChangeText={(text) => set({ customerNumber: text.slice(0, 60) || undefined })}
      />
      <TextInput
        mode="outlined"
        label="Tags, with commas between"
        aria-label="Tags"
        value={tags ?? (job.tags ?? []).join(', ')}
        onChangeText={(text) => {
          setTags(text);
          const found = tagsOf(text);
          set({ tags: found.length ? found : undefined });
        }}
      />
      <TextInput
        mode="outlined"
        label="Note"
        aria-label="Note"
        multiline
        value={job.note}
        onChangeText={(note) => set({ note: note.slice(0, 4000) })}
        style={{ minHeight: 90 }}
      />
      <Txt kind="small" tone="quiet">
        Number, tags and note change nothing a program depends on; the name stands in its head.
      </Txt>
      <Button mode="contained" onPress={done}>
        Done
      </Button>
    </Sheet>
  );
}
