import { Switch } from 'react-native-paper';
import useSWR, { useSWRConfig } from 'swr';
import { api } from '../../api/client';
import { KEYS } from '../../api/keys';
import { Row } from '../../ui/Card';
import { Txt } from '../../ui/Txt';

/** For an approver: whether this job's programs need approval. Where the shop asks it of all, there is nothing to choose. */
export function ApprovalSwitch({ jobId, on }: { jobId: string; on: boolean }) {
  const { mutate } = useSWRConfig();
  const { data: people } = useSWR(KEYS.people, api.people);
  const { data: shop } = useSWR(KEYS.handingOut, api.handingOut);
  const isApprover = people?.people.find((p) => p.id === people.here)?.roles.includes('approver');
  if (!isApprover || !shop || shop.needsApproval) return null;
  const set = (next: boolean) => void api.setJobApproval(jobId, next).then(() => mutate(KEYS.releases(jobId)));
  return (
    <Row>
      <Switch value={on} onValueChange={set} accessibilityLabel="This job needs approval" />
      <Txt style={{ flexShrink: 1 }}>Programs of this job are handed out only after an approver has looked at them</Txt>
    </Row>
  );
}
