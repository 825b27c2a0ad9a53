import { useLocalSearchParams, useRouter } from 'expo-router';
import { useCallback, useMemo, useState } from 'react';
import { View } from 'react-native';
import { Button } from 'react-native-paper';
import {
  Job,
  KINDS,
  byHand,
  kindOf,
  splitFinish,
  startingTargets,
  rankedFor,
  Operation,
  OperationKind,
  Setup,
  Tool,
  addOperation,
  asSeen,
  duplicateOperation,
  editOperation,
  insightOf,
  isStale,
  tidyRack,
  withRoutesCompared,
  withSetup,
} from '@tidypath/core';
import { useShelf } from '../../api/useShelf';
import { engine } from '../../compute/engine';
import { SPACE } from '../../theme/theme';
import { Empty } from '../../ui/Empty';
import { FindingCard } from '../../ui/FindingCard';
import { GaugeBar } from '../../ui/GaugeBar';
import { Sheet } from '../../ui/Sheet';
import { SortableList } from '../../ui/SortableList';
import { Txt } from '../../ui/Txt';
import { useFollowed, useSaying } from '../../session/here';
import { useCalmJob, useJob } from '../../session/JobContext';
import { SetupBar } from '../../session/SetupBar';
import { useComments, useSayComment } from '../../session/useComments';
import { StagePage } from '../../session/StagePage';
import { JobView } from '../../scene/JobView';
import { ProposalSheet, useProposal } from './ProposalSheet';
import { RouteBar } from './RouteBar';
import { CommentsSheet } from './CommentsSheet';
import { Act, OperationCard } from './OperationCard';
import { ValueEditor } from './ValueEditor';
import { Field, fieldKey } from './sentences/types';

function moved<T>(list: T[], from: number, to: number): T[] {
  const next = [...list];
  next.splice(to, 0, ...next.splice(from, 1));
  return next;
}

/** The value being edited: its field and what it does follow every keystroke; the route follows a moment later. */
function ValueSheet({
  operationId,
  field,
  onField,
  onClose,
}: {
  operationId: string;
  field: Field;
  onField: (field: Field) => void;
  onClose: () => void;
}) {
  const { job, setup, edit } = useJob();
  const operation = setup.operations.find((o) => o.id === operationId);
  if (!operation) return null;
  const insight = insightOf(job, operation);
  return (
    <Sheet title={operation.name} open onClose={onClose} place="beside">
      <ValueEditor
        key={fieldKey(field)}
        job={job}
        operation={operation}
        field={field}
        insight={insight}
        edit={edit}
        onField={onField}
      />
      {insight && field.at !== 'targets' && (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.m }}>
          {insight.gauges.map((g) => (
            <GaugeBar key={g.id} gauge={g} />
          ))}
        </View>
      )}
    </Sheet>
  );
}

/** The tool the advice ranks first, worked out beside the page; undefined where the advice has none. */
async function adviseTool(job: Job, kind: OperationKind, targets: string[], rack: Tool[]): Promise<Tool | undefined> {
  const suiting = rack.filter((t) => kind.suits(t));
  for (const id of targets) {
    const [first] = rankedFor(kind.kind, await engine.advise(job, id, suiting));
    if (first) return first.tool;
  }
  return undefined;
}

/** The route: operations as sentences, in order. */
export function CutStage() {
  const { job, setup, edit, computed } = useCalmJob();
  const { id } = useLocalSearchParams<{ id: string }>();
  const router = useRouter();
  const { plan, proof, proofFresh } = computed;
  const { items: rack } = useShelf('tools');
  const [openId, setOpenId] = useState<string>();
  const [editing, setEditing] = useState<Field>();
  const [adding, setAdding] = useState(false);
  const [commented, setCommented] = useState<string>();
  const comments = useComments(String(id));
  const sayComment = useSayComment(String(id), job.name);
  const spoken = setup.operations.find((o) => o.id === commented);
  const { operations } = setup;
  const { part: seen } = asSeen(job, setup);
  const route = useProposal(job, setup.id);
  useSaying('operationId', openId);
  const followed = useFollowed()?.operationId;
  const [came, setCame] = useState<string>();
  if (followed !== came) {
    setCame(followed);
    if (followed) setOpenId(followed);
  }
  const closeValue = useCallback(() => setEditing(undefined), []);
  const minutes = useMemo(
    () => (proof && proofFresh ? new Map(proof.steps.map((s) => [s.operationId, s.minutes])) : undefined),
    [proof, proofFresh],
  );

  const stale = useMemo(
    () => new Set(job.tools.filter((t) => rack.some((r) => r.id === t.id && isStale(t, r))).map((t) => t.id)),
    [job.tools, rack],
  );

  const setOperations = (change: (o: Operation[]) => Operation[]) =>
    edit((j) =>
      tidyRack(
        withSetup(
          j,
          changed(
            j.setups.find((s) => s.id === setup.id)!,
            change,
          ),
        ),
      ),
    );
  const compare = (of: string) => router.push({ pathname: '/job/[id]/compare', params: { id: String(id), of } });
  const act = (o: Operation, index: number) => (what: Act) => {
    if (what === 'comment') return setCommented(o.id);
    if (what === 'compare') return compare(o.id);
    if (what === 'switch') edit((j) => editOperation(j, o.id, (x) => ({ ...x, on: !x.on })));
    else if (what === 'duplicate') edit((j) => duplicateOperation(j, o.id));
    else if (what === 'split') edit((j) => splitFinish(j, o.id));
    else if (what === 'delete') setOperations((all) => all.filter((x) => x.id !== o.id));
    else
      setOperations((all) =>
        moved(all, index, Math.min(all.length - 1, Math.max(0, index + (what === 'up' ? -1 : 1)))),
      );
  };
  const add = async (kindName: string) => {
    const kind = kindOf(kindName)!;
    setAdding(false);
    const targets = startingTargets(kind, seen.features, operations);
    const tool = await adviseTool(job, kind, targets, rack);
    edit((j) => {
      const next = addOperation(j, setup.id, kindName, targets, tool, rack.length ? rack : undefined);
      // What is new is told by the job it was added to: the one on the screen may be older.
      const inIt = (of: Job) => of.setups.find((s) => s.id === setup.id)!.operations;
      const had = new Set(inIt(j).map((o) => o.id));
      const added = inIt(next).find((o) => !had.has(o.id));
      if (added) setOpenId(added.id);
      return next;
    });
  };

  return (
    <>
      <StagePage
        view={<JobView stock="cut" operationId={openId} />}
        action={
          <Button mode="contained" icon="plus" onPress={() => setAdding(true)}>
            Add an operation
          </Button>
        }
      >
        <SetupBar />
        {plan?.findings.map((f, i) => (
          <FindingCard key={i} finding={f} />
        ))}
        <RouteBar busy={route.busy} onPropose={() => void route.ask()} onCompare={() => compare(setup.id)} />
        {operations.length === 0 && (
          <Empty title="The route is empty">
            <Txt tone="quiet">
              Start with facing the top, then clear the pockets, drill, and contour the outside last.
            </Txt>
            <Button mode="outlined" onPress={() => setAdding(true)}>
              Add the first operation
            </Button>
          </Empty>
        )}
        <SortableList
          ids={operations.map((o) => o.id)}
          labels={operations.map((o) => o.name)}
          onMove={(from, to) => setOperations((all) => moved(all, from, to))}
          render={(id, handle) => {
            const index = operations.findIndex((o) => o.id === id);
            const o = operations[index];
            return (
              <OperationCard
                job={job}
                operation={o}
                index={index}
                open={id === openId}
                handle={handle}
                planned={plan?.planned.find((p) => p.operationId === id)}
                isToolStale={stale.has(o.toolId)}
                proved={minutes?.get(id)}
                comments={comments.filter((c) => c.operation === id).length}
                editing={id === openId ? editing : undefined}
                onOpen={() => setOpenId(id === openId ? undefined : id)}
                onEdit={(field) => {
                  setOpenId(id);
                  setEditing(field);
                }}
                onAct={act(o, index)}
              />
            );
          }}
        />
      </StagePage>
      {openId && editing && (
        <ValueSheet operationId={openId} field={editing} onField={setEditing} onClose={closeValue} />
      )}
      {spoken && (
        <CommentsSheet
          operation={spoken}
          comments={comments.filter((c) => c.operation === spoken.id)}
          onSay={(text) => sayComment(spoken.id, text)}
          onClose={() => setCommented(undefined)}
        />
      )}
      {route.proposal && (
        <ProposalSheet
          proposal={route.proposal}
          setupId={setup.id}
          replaces={operations.length}
          onClose={route.drop}
          onTake={() => {
            edit(() => route.proposal!.job);
            route.drop();
          }}
          onCompare={() => {
            edit((j) => withRoutesCompared(j, setup.id, route.proposal!.job));
            route.drop();
            compare(setup.id);
          }}
        />
      )}
      <Sheet title="Add an operation" open={adding} onClose={() => setAdding(false)}>
        {KINDS.map((k) => {
          const possible = k.works.length === 0 || seen.features.some((f) => k.works.includes(f.meaning));
          return (
            <Button
              key={k.kind}
              mode="outlined"
              disabled={!possible}
              onPress={() => void add(k.kind)}
              testID={`add-${k.kind}`}
              contentStyle={{ justifyContent: 'flex-start', minHeight: 48 }}
            >
              {k.title}
            </Button>
          );
        })}
        <Button
          mode="outlined"
          onPress={() => void add(byHand.kind)}
          testID={`add-${byHand.kind}`}
          contentStyle={{ justifyContent: 'flex-start', minHeight: 48 }}
        >
          {byHand.title}
        </Button>
        {job.part.features.length === 0 && (
          <Txt tone="quiet">Draw the part first; then pockets, holes and outlines can be chosen.</Txt>
        )}
      </Sheet>
    </>
  );
}

const changed = (setup: Setup, change: (o: Operation[]) => Operation[]): Setup => ({
  ...setup,
  operations: change(setup.operations),
});
