import { useCallback, useEffect, useRef, useState } from 'react';
import type { Moment, ProofView } from '@tidypath/core';
import { engine } from '../compute/engine';
import { useFollowed, useSaying } from './here';

export const SPEEDS = [1, 8, 32, 128] as const;

/** Plays a proof: forwards or backwards at a speed, or wherever the ribbon is touched. One question to the worker at a time. */
export function usePlayer(proof: ProofView | undefined) {
  const total = proof ? proof.clock.total * 60 : 0;
  const [time, setTime] = useState(total);
  /** Which way it plays: 0 stands still. */
  const [playing, setPlaying] = useState<-1 | 0 | 1>(0);
  const [speed, setSpeed] = useState<(typeof SPEEDS)[number]>(32);
  const [shown, setShown] = useState<{ moment: Moment; heights: Float32Array }>();
  const asked = useRef<{ busy: boolean; next?: number }>({ busy: false });
  const clockRef = useRef(time);
  /** While what is shown is cut again no time passes. */
  const held = useRef(false);

  const ask = useCallback((t: number) => {
    if (asked.current.busy) {
      asked.current.next = t;
      return;
    }
    asked.current.busy = true;
    engine.send({ type: 'seek', seq: engine.nextSeq(), time: t });
  }, []);

  useEffect(
    () =>
      engine.listen((answer) => {
        if (answer.type === 'again') held.current = answer.share !== undefined;
        if (answer.type !== 'moment') return;
        setShown({ moment: answer.moment, heights: answer.height });
        asked.current.busy = false;
        const { next } = asked.current;
        asked.current.next = undefined;
        if (next !== undefined) ask(next);
      }),
    [ask],
  );

  const seek = useCallback(
    (t: number) => {
      const held = Math.min(total, Math.max(0, t));
      clockRef.current = held;
      setTime(held);
      ask(held);
    },
    [total, ask],
  );

  useEffect(() => {
    setPlaying(0);
    setShown(undefined);
    setTime(total);
    clockRef.current = total;
    asked.current = { busy: false };
    held.current = false;
  }, [proof, total]);

  useEffect(() => {
    if (!playing) return;
    let last = performance.now();
    let frame = requestAnimationFrame(function step(now) {
      const passed = held.current ? 0 : (now - last) / 1000;
      const t = clockRef.current + passed * speed * playing;
      last = now;
      if (passed > 0) seek(t);
      if (playing === 1 ? t >= total : t <= 0) setPlaying(0);
      else frame = requestAnimationFrame(step);
    });
    return () => cancelAnimationFrame(frame);
  }, [playing, speed, seek, total]);

  useSaying('second', proof ? Math.round(time) : undefined);
  const followed = useFollowed()?.second;
  useEffect(() => {
    if (proof && followed !== undefined) seek(followed);
  }, [proof, followed, seek]);

  const play = useCallback(
    (way: -1 | 1) => {
      if (way === 1 && clockRef.current >= total - 1e-6) seek(0);
      setPlaying(way);
    },
    [seek, total],
  );
  const pause = useCallback(() => setPlaying(0), []);

  return { time, total, playing, speed, setSpeed, play, pause, seek, shown };
}
