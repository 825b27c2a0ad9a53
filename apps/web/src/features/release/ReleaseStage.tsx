import { strToU8, zipSync } from 'fflate';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { Pressable, VirtualizedList } from 'react-native';
import { Button, TextInput } from 'react-native-paper';
import { Job, Lines, joinPrograms, leftOut, ProgramView } from '@tidypath/core';
import { FONT, SIZE, SPACE, TYPE } from '../../theme/theme';
import { usePalette } from '../../theme/usePalette';
import { Card, Row } from '../../ui/Card';
import { Empty } from '../../ui/Empty';
import { FindingCard } from '../../ui/FindingCard';
import { FindingList } from '../../ui/FindingList';
import { Txt } from '../../ui/Txt';
import { saveFile } from '../../ui/files';
import { useJob, usePace } from '../../session/JobContext';
import { SetupBar } from '../../session/SetupBar';
import { StagePage } from '../../session/StagePage';
import { stopsOf } from '../../session/stages';
import { usePlayer } from '../../session/usePlayer';
import { JobView } from '../../scene/JobView';
import { KitCard } from './KitCard';
import { OutputCard } from './OutputCard';

const ROW = 26;
/** Width of a digit of the line numbers, and room for a mark. */
const DIGIT = 9;
const MARK = 18;

function toolList(job: Job, programs: ProgramView[]) {
  return (
    JSON.stringify(
      { job: job.name, programs: programs.map((p) => ({ file: p.fileName, tools: p.tools })), tools: job.tools },
      null,
      2,
    ) + '\n'
  );
}

/** The program's lines; the one under way is marked, a tap goes to its place. */
function Listing({
  lines,
  now,
  faulty,
  onLine,
}: {
  lines: Lines;
  now: number | undefined;
  faulty: Set<number>;
  onLine: (line: number) => void;
}) {
  const palette = usePalette();
  const list = useRef<VirtualizedList<string>>(null);
  const numbers = MARK + DIGIT * String(lines.count).length;
  useEffect(() => {
    if (now && now <= lines.count) list.current?.scrollToIndex({ index: now - 1, viewPosition: 0.5, animated: false });
  }, [now, lines]);
  return (
    <VirtualizedList<string>
      ref={list}
      data={lines}
      getItemCount={(all: Lines) => all.count}
      getItem={(all: Lines, i) => all.at(i)}
      testID="listing"
      style={{
        height: 360,
        borderWidth: 1,
        borderColor: palette.line,
        borderRadius: SIZE.radius,
        backgroundColor: palette.sheet,
      }}
      keyExtractor={(_, i) => String(i)}
      getItemLayout={(_, index) => ({ length: ROW, offset: ROW * index, index })}
      initialNumToRender={30}
      renderItem={({ item, index }) => {
        const line = index + 1;
        return (
          <Pressable
            role="button"
            onPress={() => onLine(line)}
            style={{
              height: ROW,
              flexDirection: 'row',
              gap: SPACE.s,
              paddingHorizontal: SPACE.s,
              alignItems: 'center',
              backgroundColor:
                line === now ? palette.accentSoft : faulty.has(line) ? palette.dangerSoft : 'transparent',
            }}
          >
            <Txt mono kind="small" tone="quiet" style={{ width: numbers, textAlign: 'right' }}>
              {faulty.has(line) ? '▲ ' : ''}
              {line}
            </Txt>
            <Txt mono kind="small" lines={1}>
              {item}
            </Txt>
          </Pressable>
        );
      }}
    />
  );
}

/** The programs: read them against the picture, edit and prove again, download. */
export function ReleaseStage() {
  const { job, setup, computed, standing } = useJob();
  const without = leftOut(setup);
  const palette = usePalette();
  const { plan, proof, proofFresh, provedText, maker, makeHere } = computed;
  const isForeign = maker === 'page';
  // What a page elsewhere made nobody here can stand for.
  useEffect(() => {
    if (isForeign) makeHere();
  }, [isForeign, makeHere]);
  const proving = usePace().progress !== undefined;
  const player = usePlayer(proof);
  const [draft, setDraft] = useState<string>();
  const [look, setLook] = useState(0);
  const programs = useMemo(() => plan?.programs ?? [], [plan]);
  const posted = useMemo(() => (programs.length ? joinPrograms(programs).text : ''), [programs]);
  const shownText = useDeferredValue(proof ? (provedText ?? posted) : posted);
  const lines = useMemo(() => new Lines(shownText.replace(/\n$/, '')), [shownText]);
  const edited = proofFresh && provedText !== undefined && provedText !== posted;
  const faulty = useMemo(
    () => new Set(proof?.findings.flatMap((f) => (f.level === 'stop' && f.place.line ? [f.place.line] : []))),
    [proof],
  );
  const stops = stopsOf(computed);
  const clear = proofFresh && !isForeign && !edited && stops.length === 0 && programs.length > 0;
  const moment = useMemo(() => {
    const tool = player.shown && job.tools.find((t) => t.number === player.shown!.moment.tool);
    return player.shown && tool ? { at: player.shown.moment, tool, heights: player.shown.heights } : undefined;
  }, [player.shown, job.tools]);

  const toLine = (line: number) => {
    const motion = proof?.lines.findIndex((l) => l >= line) ?? -1;
    if (!proof || motion < 0) return;
    setLook((n) => n + 1);
    player.seek(proof.ends[motion]);
  };
  const download = () => {
    standing.release();
    if (programs.length === 1) saveFile(programs[0].fileName, programs[0].text, 'text/plain');
    else
      saveFile(
        'programs.zip',
        zipSync(
          Object.fromEntries([
            ...programs.map((p) => [p.fileName, strToU8(p.text)]),
            ['tools.json', strToU8(toolList(job, programs))],
          ]),
        ),
        'application/zip',
      );
  };

  if (plan && programs.length === 0) {
    return (
      <Empty title="There is no program yet">
        <SetupBar />
        {stops.slice(0, 6).map((f, i) => (
          <FindingCard key={i} finding={f} />
        ))}
        {stops.length === 0 && <Txt tone="quiet">Add operations on the Cut stage.</Txt>}
        {stops.some((f) => f.place.field === 'programNumber') && <OutputCard />}
      </Empty>
    );
  }
  return (
    <StagePage
      view={<JobView stock="cut" moment={moment} />}
      look={look}
      action={
        <Row>
          <Button
            mode="outlined"
            style={{ flex: 1 }}
            disabled={!programs.length}
            onPress={() => saveFile('tools.json', toolList(job, programs), 'application/json')}
          >
            Tool list
          </Button>
          <Button mode="contained" style={{ flex: 1 }} disabled={!clear} onPress={download} testID="download">
            {programs.length > 1 ? `Download ${programs.length} programs` : 'Download'}
          </Button>
        </Row>
      }
    >
      <SetupBar />
      {!clear && (
        <Txt tone={stops.length ? 'danger' : 'quiet'} live testID="release-state">
          {stops.length
            ? `▲ Not released: ${stops.length} to cure`
            : edited
              ? 'The proof is of an edited text; go back to the posted one to release it'
              : isForeign
                ? 'It was made on another device and is made anew here before it is released'
                : proving
                  ? 'Being proved'
                  : 'Waiting for the proof'}
        </Txt>
      )}
      {clear && (
        <Txt bold testID="release-state">
          ✓ Proved as posted; nothing stops it
        </Txt>
      )}
      {without.length > 0 && (
        <Txt tone="care" testID="left-out">
          ◆ Without what is switched off: {without.join(', ')}. The program says so in its head.
        </Txt>
      )}
      {standing.releaseTold && (
        <Txt kind="small" tone="quiet" live testID="release-told">
          {standing.releaseTold}
        </Txt>
      )}
      <FindingList
        findings={(proof?.findings ?? []).filter((f) => f.level === 'stop')}
        goTo={(f) => (f.place.line ? () => toLine(f.place.line!) : undefined)}
        goLabel="Show the line"
      />
      <Listing lines={lines} now={player.shown?.moment.line} faulty={faulty} onLine={toLine} />
      {draft === undefined ? (
        <Row>
          <Button compact mode="outlined" onPress={() => setDraft(shownText)}>
            Try an edit
          </Button>
          {edited && (
            <Button compact mode="outlined" onPress={computed.backToOwn}>
              Back to the posted text
            </Button>
          )}
        </Row>
      ) : (
        <Card>
          <Txt kind="small" tone="quiet">
            Change the text and prove it; the job itself stays as it is.
          </Txt>
          <TextInput
            mode="outlined"
            multiline
            value={draft}
            onChangeText={setDraft}
            aria-label="Program text"
            testID="program-text"
            style={{ height: 300 }}
            contentStyle={{ fontFamily: FONT.mono, fontSize: TYPE.small, backgroundColor: palette.sheet }}
          />
          <Row>
            <Button mode="outlined" onPress={() => setDraft(undefined)}>
              Leave it
            </Button>
            <Button
              mode="contained"
              onPress={() => {
                computed.proveText(draft);
                setDraft(undefined);
              }}
            >
              Prove this text
            </Button>
          </Row>
        </Card>
      )}
      {proof && proofFresh && !edited && <KitCard proof={proof} />}
      <OutputCard />
      <Txt kind="small" tone="quiet">
        First run: check tool lengths and work offset, dry run above the part, single block, reduced rapids, a finger on
        feed hold. The figures are estimates; the machine maker’s limits and your local safety rules decide.
      </Txt>
    </StagePage>
  );
}
