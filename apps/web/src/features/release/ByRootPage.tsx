import { Redirect } from 'expo-router';
import useSWR from 'swr';
import { api } from '../../api/client';
import { Page } from '../../shell/Page';
import { Txt } from '../../ui/Txt';

/** Where the code on a setup sheet leads: the release of these digits. */
export function ByRootPage({ root }: { root: string }) {
  const { data, error } = useSWR(['releases', 'by-root', root], () => api.releaseByRoot(root));
  if (data) return <Redirect href={`/release/${data.id}`} />;
  return (
    <Page title="Release">
      {error ? (
        <Txt tone="danger">
          ▲ No release here begins with {root}. The sheet may be of another server, or was printed from a backup.
        </Txt>
      ) : (
        <Txt tone="quiet">It is looked for …</Txt>
      )}
    </Page>
  );
}
